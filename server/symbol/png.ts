import { rasterPlan, scenePixels, type Scene } from '@flimbo/core/symbol'

/**
 * A scene in black and white as a PNG of one bit a pixel, whole pixels a unit, its physical size stored in the file
 * (the pHYs chunk of the PNG specification).
 * @throws RasterTooLarge
 */
export async function scenePng(scene: Scene, dpi: number): Promise<Buffer> {
  const plan = rasterPlan(scene, dpi)
  const { default: sharp } = await import('sharp')
  const raw = { width: plan.width, height: plan.height, channels: 1 } as const
  return sharp(scenePixels(scene, plan.scale), { raw })
    .withMetadata({ density: plan.dpi })
    .toColourspace('b-w')
    .png({ palette: true, colours: 2, compressionLevel: 9 })
    .toBuffer()
}
