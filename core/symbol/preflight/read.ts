import type { Subject, View } from './camera.ts'
import { photograph } from './camera.ts'

/** A picture as decoders take it: red, green, blue and opaqueness, a byte each. */
export interface Frame {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray<ArrayBuffer>
}

/** Reads the symbol in a picture; null where it finds none. It comes from outside: core knows no decoder. */
export type Decoder = (frame: Frame) => Promise<string | null> | string | null

/** A phone looks again and again: so many pictures a moment, each from a little elsewhere. */
const FRAMES = 3
/** How the hand moves between them: degrees, and shares of the distance. */
const HAND = [
  { turnDeg: 1.3, distance: 1 },
  { turnDeg: -3.1, distance: 0.97 },
  { turnDeg: 5.2, distance: 1.03 },
] as const

/**
 * Whether every decoder reads a text within a moment's pictures.
 *
 * @param seed the same for the same question, so that the same design gets the same answer
 */
export async function isRead(
  subject: Subject,
  view: View,
  text: string,
  decoders: readonly Decoder[],
  seed: number,
): Promise<boolean> {
  const waiting = new Set(decoders)
  for (let i = 0; i < FRAMES; i++) {
    const { turnDeg, distance } = HAND[i % HAND.length] ?? HAND[0]
    const moved = { ...view, turnDeg: view.turnDeg + turnDeg, distanceMm: view.distanceMm * distance }
    const picture = photograph(subject, moved, seed * FRAMES + i)
    if (!picture) continue
    const frame = frameOf(picture)
    for (const decoder of [...waiting]) {
      // Where one does not read it there is no hurry to ask the next.
      if ((await decoder(frame)) !== text) break
      waiting.delete(decoder)
    }
    if (waiting.size === 0) return true
  }
  return false
}

const OPAQUE = 0xff000000

function frameOf({ width, height, gray }: NonNullable<ReturnType<typeof photograph>>): Frame {
  const pixels = new Uint32Array(gray.length)
  for (let i = 0; i < pixels.length; i++) pixels[i] = OPAQUE | ((gray[i] ?? 0) * 0x010101)
  return { width, height, data: new Uint8ClampedArray(pixels.buffer) }
}
