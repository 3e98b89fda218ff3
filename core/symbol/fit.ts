import { blocksOf, VERSION_MAX, type Level } from './capacity.ts'
import { bitsOf, CLASS_ENDS, modeOf, segmentsOf, type Segment, type SizeClass } from './segments.ts'

/** The smallest symbol that holds a text, and how the text is written in it. */
export interface Fit {
  readonly version: number
  readonly segments: readonly Segment[]
}

const classOf = (version: number) => CLASS_ENDS.findIndex((end) => version <= end) as SizeClass

/** A text in one mode where no switching makes it shorter, or else in those that make it shortest. */
function shortest(text: string, size: SizeClass): Segment[] {
  const plain = [{ mode: modeOf(text), text }]
  const mixed = segmentsOf(text, size)
  return (bitsOf(mixed, size) ?? Infinity) < (bitsOf(plain, size) ?? Infinity) ? mixed : plain
}

/**
 * Finds the smallest version (1–40) that holds a text at a level; null where none does. Modes are mixed only where
 * that makes it shorter.
 *
 * @param from looks no further down than this version
 */
export function fit(text: string, level: Level, from = 1): Fit | null {
  let segments: Segment[] = []
  let bits: number | null = null
  let size: SizeClass | null = null
  for (let version = from; version <= VERSION_MAX; version++) {
    if (size !== classOf(version)) {
      size = classOf(version)
      segments = shortest(text, size)
      bits = bitsOf(segments, size)
    }
    if (bits !== null && bits <= blocksOf(version, level).data * 8) return { version, segments }
  }
  return null
}
