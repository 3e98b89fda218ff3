import { drawingDensity } from '../files/index.ts'
import type { PictureFile } from '../print/index.ts'

/** A logo in pixels, as a PNG file. */
export interface Logo {
  readonly bytes: Uint8Array
  readonly width: number
  readonly height: number
}

/** Pixels of the longer side: twice what a page shows, and fine enough for print. */
const SIDE = 640

/** A picture as small as it stands at the top of a report; null where it is not there any more. */
export async function readLogo(file: PictureFile | null): Promise<Logo | null> {
  if (!file) return null
  const { default: sharp } = await import('sharp')
  const density = file.type === 'image/svg+xml' ? { density: drawingDensity(file, SIDE) } : {}
  try {
    const { data, info } = await sharp(file.path, density)
      .resize(SIDE, SIDE, { fit: 'inside', withoutEnlargement: file.type !== 'image/svg+xml' })
      .png()
      .toBuffer({ resolveWithObject: true })
    return { bytes: data, width: info.width, height: info.height }
  } catch {
    return null
  }
}
