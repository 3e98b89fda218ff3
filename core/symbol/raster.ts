import { QUIET_ZONE, type QrSymbol } from './encode.ts'
import { fullSide } from './draw.ts'

const MM_PER_INCH = 25.4
export const RASTER_SIDE_MAX = 16_384

/** How a symbol becomes pixels: whole pixels a module, so that no module is wider than its neighbour. */
export interface RasterPlan {
  /** Pixels a module. */
  readonly scale: number
  /** Pixels a side, quiet zone included. */
  readonly pixels: number
  /** Dots per inch that make the picture exactly `mm` wide; at least what was asked for. */
  readonly dpi: number
  readonly mm: number
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
 * Plans the pixels of a symbol printed `mm` millimetres wide (quiet zone included) at `dpi` or better:
 * the pixels a module are rounded up to a whole number and the resolution raised to match, so the
 * physical size stays exact.
 * @throws RasterTooLarge above 16,384 pixels a side
 */
export function rasterPlan(side: number, mm: number, dpi: number): RasterPlan {
  const full = fullSide(side)
  const scale = Math.max(1, Math.ceil(((mm / MM_PER_INCH) * dpi) / full - 1e-9))
  const pixels = scale * full
  if (pixels > RASTER_SIDE_MAX) throw new RasterTooLarge(pixels)
  return { scale, pixels, dpi: (pixels / mm) * MM_PER_INCH, mm }
}

/** The symbol's pixels, one byte each, rows from the top: 0 is black, 255 white. Quiet zone included. */
export function rasterise({ modules, side }: Pick<QrSymbol, 'modules' | 'side'>, scale: number): Uint8Array {
  const width = fullSide(side) * scale
  const pixels = new Uint8Array(width * width).fill(255)
  modules.forEach((row, y) => {
    const top = (y + QUIET_ZONE) * scale * width
    row.forEach((dark, x) => {
      const left = top + (x + QUIET_ZONE) * scale
      if (dark) pixels.fill(0, left, left + scale)
    })
    for (let line = 1; line < scale; line++) pixels.copyWithin(top + line * width, top, top + width)
  })
  return pixels
}
