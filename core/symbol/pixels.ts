import { crossRows, edgesOf, type Edge } from './edges.ts'
import type { Mark, Scene } from './scene.ts'

const MM_PER_INCH = 25.4
export const RASTER_SIDE_MAX = 16_384

/** How a scene becomes pixels: whole pixels a unit, so that no module is wider than its neighbour. */
export interface RasterPlan {
  /** Pixels a unit. */
  readonly scale: number
  readonly width: number
  readonly height: number
  /** Dots per inch that make the picture exactly as large as it is printed; at least what was asked for. */
  readonly dpi: number
}

/** The picture would have more pixels a side than Flimbo draws. */
export class RasterTooLarge extends RangeError {
  override readonly name = 'RasterTooLarge'
  constructor(readonly pixels: number) {
    super(
      `That would be ${String(pixels)} pixels a side; ${String(RASTER_SIDE_MAX)} are the most. Choose fewer dpi or take the SVG, which has no pixels.`,
    )
  }
}

/**
 * Plans the pixels of a scene at `dpi` or better: the pixels a unit are rounded up to a whole number and the
 * resolution raised to match, so the physical size stays exact.
 * @throws RasterTooLarge above 16,384 pixels a side
 */
export function rasterPlan(
  { unitMm, width, height }: Omit<Scene, 'title' | 'marks'>,
  dpi: number,
): RasterPlan {
  const scale = Math.max(1, Math.ceil((unitMm / MM_PER_INCH) * dpi - 1e-9))
  const side = scale * Math.max(width, height)
  if (side > RASTER_SIDE_MAX) throw new RasterTooLarge(Math.ceil(side))
  // The width as it was asked for: 33 thirty-thirds of 240 mm are no hair wider.
  const mm = Math.round(width * unitMm * 1e9) / 1e9
  const [columns, rows] = [Math.round(scale * width), Math.round(scale * height)]
  return { scale, width: columns, height: rows, dpi: ((scale * width) / mm) * MM_PER_INCH }
}

const isWhole = (value: number) => Math.abs(value - Math.round(value)) < 1e-6

/** Whether a scene is black and white alone, and every edge of it lies between two pixels: no edge of it can be soft. */
export function isBilevel({ width, height, marks }: Scene, scale: number): boolean {
  return (
    isWhole(width * scale) &&
    isWhole(height * scale) &&
    marks.every(
      (mark) =>
        mark.kind === 'area' &&
        mark.ink.kind === 'solid' &&
        mark.ink.colour in LIGHTNESS &&
        mark.outlines.every((outline) =>
          outline.every((step) => step.length === 2 && step.every((value) => isWhole(value * scale))),
        ),
    )
  )
}

/** How light a colour of a scene in black and white is: 0 for black, 255 for white. */
const LIGHTNESS: Readonly<Record<string, number>> = {
  '#000': 0,
  '#000000': 0,
  '#fff': 255,
  '#ffffff': 255,
}

/**
 * The pixels of a scene in black and white, one byte each, rows from the top: 0 is black, 255 white. A pixel belongs to
 * an area that its centre lies in.
 *
 * @param scale whole pixels a unit, as `rasterPlan` gives them
 * @throws RangeError where a mark has another colour, or is a picture
 */
export function scenePixels({ width, height, marks }: Scene, scale: number): Uint8Array {
  const [columns, rows] = [width * scale, height * scale]
  const pixels = new Uint8Array(columns * rows).fill(255)
  for (const mark of marks) {
    const { outlines, lightness } = blackOrWhite(mark)
    fill(pixels, columns, rows, edgesOf(outlines, scale), lightness)
  }
  return pixels
}

function blackOrWhite(mark: Mark) {
  const colour = mark.kind === 'area' && mark.ink.kind === 'solid' ? mark.ink.colour : mark.kind
  const lightness = LIGHTNESS[colour]
  if (mark.kind !== 'area' || lightness === undefined) throw new RangeError(`Not black or white: ${colour}`)
  return { outlines: mark.outlines, lightness }
}

/** Fills what lies between each odd and even crossing of a row with some edges. */
function fill(
  pixels: Uint8Array,
  columns: number,
  rows: number,
  edges: readonly Edge[],
  lightness: number,
): void {
  crossRows(edges, rows, 1, (row, crossings) => {
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, Math.ceil((crossings[i] ?? 0) - 0.5))
      const to = Math.min(columns, Math.ceil((crossings[i + 1] ?? 0) - 0.5))
      if (to > from) pixels.fill(lightness, row * columns + from, row * columns + to)
    }
  })
}
