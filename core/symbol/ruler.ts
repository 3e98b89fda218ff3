/** Numbers of a ruler stand at least so far apart, and its strokes, in millimetres as they are shown. */
const LABEL_APART_MM = 9
const TICK_APART_MM = 1.8

/** Where a ruler has its strokes and its numbers, in millimetres from its beginning. */
export interface RulerMarks {
  readonly ticks: readonly number[]
  readonly labels: readonly number[]
}

/** The smallest of 1, 2, 5, 10, 20, 50 … that is at least `least`. */
function stepOf(least: number): number {
  for (let power = 1; ; power *= 10)
    for (const digit of [1, 2, 5]) if (digit * power >= least) return digit * power
}

/**
 * The marks of a ruler along something: numbers that never run into each other, and strokes between them.
 *
 * @param mm how long what is measured is, as it is printed
 * @param scale how much smaller it is shown: 1 as it is printed
 */
export function rulerMarks(mm: number, scale: number): RulerMarks {
  const label = stepOf(LABEL_APART_MM / scale)
  const tick = Math.min(label, stepOf(TICK_APART_MM / scale))
  const every = (step: number) => Array.from({ length: Math.floor(mm / step + 1e-9) + 1 }, (_, i) => i * step)
  // A stroke under each number.
  return { labels: every(label), ticks: every(label % tick === 0 ? tick : label) }
}
