import sharp from 'sharp'
import { rasterise, rasterPlan, type QrSymbol } from '@flimbo/core/symbol'

/**
 * A symbol as a PNG of one bit a pixel, whole pixels a module, its physical size stored in the file
 * (the pHYs chunk of the PNG specification).
 * @throws RasterTooLarge
 */
export async function symbolPng(symbol: QrSymbol, mm: number, dpi: number): Promise<Buffer> {
  const plan = rasterPlan(symbol.side, mm, dpi)
  const raw = { width: plan.pixels, height: plan.pixels, channels: 1 } as const
  return sharp(rasterise(symbol, plan.scale), { raw })
    .withMetadata({ density: plan.dpi })
    .toColourspace('b-w')
    .png({ palette: true, colours: 2, compressionLevel: 9 })
    .toBuffer()
}
