import type { Look } from './look.ts'
import { outlinesOf } from './outline.ts'
import { circle, diamond, roundedCorners, roundedRectangle, type Outline, type Point } from './path.ts'

/** Dark modules to be drawn: whether the one at a column and a row is among them. */
export type Dark = (x: number, y: number) => boolean

/** How much of a rounded module's side its corners take. */
const ROUNDING = 0.3

/**
 * The dark modules of a symbol as outlines, in modules from its corner. Modules that flow together and bars are one
 * outline each; the outlines of one symbol do not overlap.
 *
 * @param side modules a side
 */
export function moduleOutlines(dark: Dark, side: number, { shape, size }: Look['modules']): Outline[] {
  const inset = (1 - size) / 2
  switch (shape) {
    case 'square':
      return size === 1
        ? merged(dark, side)
        : single(dark, side, (x, y) => roundedRectangle(x + inset, y + inset, size, size, 0))
    case 'rounded':
      return single(dark, side, (x, y) => roundedRectangle(x + inset, y + inset, size, size, size * ROUNDING))
    case 'dot':
      return single(dark, side, (x, y) => circle(x + 0.5, y + 0.5, size / 2))
    case 'diamond':
      return single(dark, side, (x, y) => diamond(x + 0.5, y + 0.5, size / 2))
    case 'upright':
      return bars(dark, side, (x, y, length) =>
        roundedRectangle(x + inset, y + inset, size, length - 2 * inset, size / 2),
      )
    case 'lying':
      return bars(
        (x, y) => dark(y, x),
        side,
        (x, y, length) => roundedRectangle(y + inset, x + inset, length - 2 * inset, size, size / 2),
      )
    case 'flowing':
      // Half a module at most is rounded: single modules become dots, and rows of them stay joined.
      return merged(dark, side).map((corners) => roundedCorners(corners, size / 2))
  }
}

function merged(dark: Dark, side: number): Point[][] {
  const modules = Array.from({ length: side }, (_, y) => Array.from({ length: side }, (__, x) => dark(x, y)))
  return outlinesOf({ modules, side })
}

function single(dark: Dark, side: number, draw: (x: number, y: number) => Outline): Outline[] {
  const outlines: Outline[] = []
  for (let y = 0; y < side; y++) for (let x = 0; x < side; x++) if (dark(x, y)) outlines.push(draw(x, y))
  return outlines
}

/** Runs of dark modules down each column. */
function bars(dark: Dark, side: number, draw: (x: number, y: number, length: number) => Outline): Outline[] {
  const outlines: Outline[] = []
  for (let x = 0; x < side; x++)
    for (let y = 0; y < side; y++) {
      if (!dark(x, y)) continue
      let length = 1
      while (y + length < side && dark(x, y + length)) length++
      outlines.push(draw(x, y, length))
      y += length
    }
  return outlines
}
