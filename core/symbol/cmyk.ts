import { rgbOf } from './colourPixels.ts'
import type { Solid } from './scene.ts'

/** Ink of a press: cyan, magenta, yellow and black, each 0 to 1. */
export type Cmyk = readonly [cyan: number, magenta: number, yellow: number, black: number]

/**
 * A colour as a press mixes it: as was said, or else what red, green and blue lack, with all that is common to them as
 * black. So grays and black are black ink alone. A press's own profile would say it more exactly: who cares, says the
 * four values. Common practice, no published source.
 */
export function cmykOf({ colour, cmyk }: Solid): Cmyk {
  if (cmyk) return cmyk.map((percent) => percent / 100) as unknown as Cmyk
  const lacking = rgbOf(colour).map((value) => 1 - value / 255)
  const black = Math.min(...lacking)
  if (black === 1) return [0, 0, 0, 1]
  return [...lacking.map((value) => (value - black) / (1 - black)), black] as unknown as Cmyk
}
