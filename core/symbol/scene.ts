import { QUIET_ZONE, type QrSymbol } from './encode.ts'
import { fullSide, outlinesOf } from './outline.ts'

/** A point, in units of its scene from the upper left corner. */
export type Point = readonly [x: number, y: number]

/** What something is printed with: a solid colour, as CSS writes it (`#1f2a30`). */
export interface Ink {
  readonly kind: 'solid'
  readonly colour: string
}

/** An area: closed outlines of straight lines, filled by the even-odd rule. */
export interface Area {
  readonly kind: 'area'
  readonly outlines: readonly (readonly Point[])[]
  readonly ink: Ink
}

/** Something in a scene. */
export type Mark = Area

/**
 * What is printed, before any file format: every file and every check draws this. Measured in units that are so many
 * millimetres wide, such as a module, so that whole numbers stay whole; later marks lie on earlier ones.
 */
export interface Scene {
  readonly title: string
  readonly unitMm: number
  /** In units. */
  readonly width: number
  readonly height: number
  readonly marks: readonly Mark[]
}

export const BLACK: Ink = { kind: 'solid', colour: '#000' }
export const WHITE: Ink = { kind: 'solid', colour: '#fff' }

/** A rectangle from the upper left corner of a scene, as an area. */
function ground(width: number, height: number, ink: Ink): Area {
  const corners: Point[] = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ]
  return { kind: 'area', outlines: [corners], ink }
}

/**
 * A plain symbol as it is printed: black on white, with its quiet zone.
 *
 * @param mm printed side in millimetres, quiet zone included
 * @param title what screen readers read out
 */
export function symbolScene(symbol: Pick<QrSymbol, 'modules' | 'side'>, mm: number, title: string): Scene {
  const full = fullSide(symbol.side)
  const outlines = outlinesOf(symbol).map((outline) =>
    outline.map(([x, y]): Point => [x + QUIET_ZONE, y + QUIET_ZONE]),
  )
  return {
    title,
    unitMm: mm / full,
    width: full,
    height: full,
    marks: [ground(full, full, WHITE), { kind: 'area', outlines, ink: BLACK }],
  }
}
