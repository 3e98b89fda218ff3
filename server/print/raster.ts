import type { Sharp } from 'sharp'
import {
  isBilevel,
  rasterPlan,
  RasterTooLarge,
  sceneColours,
  scenePixels,
  type FileFormat,
  type Pixels,
  type Scene,
} from '@flimbo/core/symbol'

/** In colour each pixel takes four bytes: so many of them are drawn at most. */
const COLOUR_PIXELS_MAX = 64_000_000

type Format = Extract<FileFormat, 'png' | 'jpeg' | 'webp'>

/**
 * A scene as a picture of whole pixels a module, its physical size stored in the file: pHYs of PNG, JFIF of JPEG, Exif
 * of WebP. What is black and white with square modules has one bit a pixel.
 *
 * @throws RasterTooLarge
 */
export async function sceneRaster(
  scene: Scene,
  { format, dpi }: { format: Format; dpi: number },
  picturesAt: (dpi: number) => Promise<ReadonlyMap<string, Pixels>>,
): Promise<Uint8Array> {
  const plan = rasterPlan(scene, dpi)
  const { default: sharp } = await import('sharp')
  const { width, height, scale } = plan
  if (format === 'png' && isBilevel(scene, scale)) {
    const raw = { width, height, channels: 1 } as const
    return sharp(scenePixels(scene, scale), { raw })
      .withMetadata({ density: plan.dpi })
      .toColourspace('b-w')
      .png({ palette: true, colours: 2, compressionLevel: 9 })
      .toBuffer()
  }
  if (width * height > COLOUR_PIXELS_MAX) throw new RasterTooLarge(Math.max(width, height))
  const { data } = sceneColours(scene, scale, await picturesAt(plan.dpi))
  const drawn = sharp(data, { raw: { width, height, channels: 4 } }).withMetadata({ density: plan.dpi })
  return encoded(drawn, format).toBuffer()
}

function encoded(drawn: Sharp, format: Format): Sharp {
  switch (format) {
    case 'png':
      return drawn.png({ compressionLevel: 9 })
    case 'webp':
      // Edges of modules must stay where they are.
      return drawn.webp({ lossless: true })
    case 'jpeg':
      return drawn.flatten({ background: '#ffffff' }).jpeg({ quality: 95, chromaSubsampling: '4:4:4' })
  }
}
