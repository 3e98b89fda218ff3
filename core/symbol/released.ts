import equal from 'fast-deep-equal'
import { z } from 'zod'
import type { Level } from './capacity.ts'
import type { Look } from './look.ts'
import type { Placement } from './placement.ts'

/** What of a piece is on paper once it was released. */
export interface Printed {
  /** What the symbol carries. */
  readonly text: string
  readonly level: Level
  readonly sizeMm: number
  readonly look: Look
  readonly placement: Placement | null
}

export const RELEASE_CHANGES = ['link', 'content', 'size', 'level', 'look', 'placement'] as const
export type ReleaseChange = (typeof RELEASE_CHANGES)[number]

/** The newest release of a piece, and what of the piece is another than what was released. */
export const releaseMark = z.object({
  id: z.int(),
  /** Counts the releases of a piece. */
  number: z.int(),
  at: z.int(),
  changed: z.array(z.enum(RELEASE_CHANGES)),
})
export type ReleaseMark = z.infer<typeof releaseMark>

/** What of a piece is not as it was released; `carries` says whether its symbol stands for a short link or holds a content. */
export function changedSince(
  released: Printed,
  now: Printed,
  carries: 'link' | 'content' = 'link',
): ReleaseChange[] {
  const isOther = released.text !== now.text
  const changes: Readonly<Record<ReleaseChange, boolean>> = {
    link: carries === 'link' && isOther,
    content: carries === 'content' && isOther,
    size: released.sizeMm !== now.sizeMm,
    level: released.level !== now.level,
    look: !equal(released.look, now.look),
    placement: !equal(released.placement, now.placement),
  }
  return RELEASE_CHANGES.filter((each) => changes[each])
}

const WORDS: Readonly<Record<ReleaseChange, string>> = {
  link: 'the short link',
  content: 'what it carries',
  size: 'the size',
  level: 'the error correction',
  look: 'the look',
  placement: 'the picture it lies on',
}

/** What is to be said of a piece that was changed since it was released; empty where nothing was. */
export function releaseSentence({ number, changed }: Pick<ReleaseMark, 'number' | 'changed'>): string {
  const [first, ...more] = changed.map((each) => WORDS[each])
  if (first === undefined) return ''
  const last = more.pop()
  const all = last === undefined ? first : `${[first, ...more].join(', ')} and ${last}`
  return `Since release ${String(number)} ${all} changed. What is printed stays as it was; release it again to print it anew.`
}
