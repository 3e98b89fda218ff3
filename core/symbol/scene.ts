import { QUIET_ZONE, type QrSymbol } from './encode.ts'
import { fullSide, outlinesOf } from './outline.ts'
import { placed, rectangle, type Outline, type Point } from './path.ts'

/** One colour: as CSS writes it (`#1f2a30`), and in print where that is not to be worked out: cyan, magenta, yellow, black in per cent. */
export interface Solid {
  readonly kind: 'solid'
  readonly colour: string
  readonly cmyk?: readonly [cyan: number, magenta: number, yellow: number, black: number]
}

/** Two colours that run into each other along a line, and go on beyond its ends. */
export interface Linear {
  readonly kind: 'linear'
  readonly from: Point
  readonly to: Point
  readonly stops: readonly [Solid, Solid]
}

/** Two colours that run into each other from a point outwards. */
export interface Radial {
  readonly kind: 'radial'
  readonly centre: Point
  readonly radius: number
  readonly stops: readonly [Solid, Solid]
}

/** What something is printed with. */
export type Ink = Solid | Linear | Radial

/** An area: closed outlines, filled by the even-odd rule. */
export interface Area {
  readonly kind: 'area'
  readonly outlines: readonly Outline[]
  readonly ink: Ink
}

/** An area of one colour. */
export interface PlainArea extends Area {
  readonly ink: Solid
}

/** An uploaded picture, drawn into a rectangle. */
export interface Picture {
  readonly kind: 'picture'
  /** The SHA-256 it is kept by. */
  readonly file: string
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  /** Degrees, clockwise about its middle; 0 where it is not said. */
  readonly turnDeg?: number
}

/** Something in a scene. */
export type Mark = Area | Picture

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

export const BLACK: Solid = { kind: 'solid', colour: '#000' }
/** Black ink alone, which every press has. */
export const PRINT_BLACK: Solid = { kind: 'solid', colour: '#000000', cmyk: [0, 0, 0, 100] }
export const WHITE: Solid = { kind: 'solid', colour: '#fff' }

/**
 * A plain symbol as it is printed: black on white, with its quiet zone.
 *
 * @param mm printed side in millimetres, quiet zone included
 * @param title what screen readers read out
 */
export function symbolScene(
  symbol: Pick<QrSymbol, 'modules' | 'side'>,
  mm: number,
  title: string,
): Scene & { marks: readonly PlainArea[] } {
  const full = fullSide(symbol.side)
  const outlines = outlinesOf(symbol).map((outline) => placed(outline, QUIET_ZONE, QUIET_ZONE))
  return {
    title,
    unitMm: mm / full,
    width: full,
    height: full,
    marks: [
      { kind: 'area', outlines: [rectangle(0, 0, full, full)], ink: WHITE },
      { kind: 'area', outlines, ink: BLACK },
    ],
  }
}
