import { readFile, stat } from 'node:fs/promises'
import type { Sharp, SharpOptions } from 'sharp'
import {
  DRAWING_BYTES_MAX,
  PICTURE_BYTES_MAX,
  PICTURE_PIXELS_MAX,
  type PictureType,
} from '@flimbo/core/files'
import { Refusal } from '../api/index.ts'
import { headOf } from './headOf.ts'
import { harmlessSvg, NotADrawing } from './harmlessSvg.ts'

/** A picture as it is kept. */
export interface CleanPicture {
  readonly type: PictureType
  readonly width: number
  readonly height: number
  readonly bytes: Uint8Array
  /** As WebP, at most so many pixels a side as screens and checks need. */
  readonly preview: Uint8Array
}

export const PREVIEW_SIDE = 1280
/** A picture that takes longer to read is none that anybody saved on purpose. */
const READ_SECONDS = 30
const HEAD_BYTES = 4096
const DRAWING_DPI = 72

const refused = (sentence: string) => new Refusal('invalid', sentence)
const damaged = () =>
  refused('The picture is damaged or was cut off: it could not be read to its end. Upload it again.')
const unknownType = (found?: string) =>
  refused(
    `${found === undefined ? 'This is no file that Flimbo reads' : `This is a ${found.toUpperCase()} file`}, whatever it is called. Save a picture as PNG, JPEG, WebP or SVG; a document as PDF, a recording as MP3, M4A, WAV or OGG, a film as MP4 or WebM.`,
  )

const OPTIONS: SharpOptions = {
  limitInputPixels: PICTURE_PIXELS_MAX,
  failOn: 'truncated',
  sequentialRead: false,
}
/** sharp takes as long to load as the rest of the office: only who uploads needs it. */
const loadSharp = async () => (await import('sharp')).default

/**
 * Reads a picture by what is in it and makes it clean: upright, in sRGB, without anything but its pixels; or, of a
 * drawing, nothing but what draws.
 *
 * @throws Refusal, with what to do, where it is none or cannot be taken
 */
export async function cleanPicture(file: string): Promise<CleanPicture> {
  const { size } = await stat(file)
  if (size > PICTURE_BYTES_MAX)
    throw new Refusal(
      'tooLarge',
      `The picture is larger than ${String(PICTURE_BYTES_MAX / 1024 / 1024)} MB. Save it smaller, or with fewer pixels, and upload it again.`,
    )
  const head = await headOf(file, HEAD_BYTES)
  if (head.length === 0) throw refused('The file is empty. Choose another.')
  return looksLikeDrawing(head) ? cleanDrawing(file) : cleanPixels(file)
}

function looksLikeDrawing(head: Buffer): boolean {
  const text = head.toString('utf8').replace(/^\ufeff?\s*/, '')
  return text.startsWith('<')
}

/** What libvips calls a format, as its media type. */
const TYPES: Readonly<Record<string, PictureType>> = {
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
}

async function cleanPixels(file: string): Promise<CleanPicture> {
  const sharp = await loadSharp()
  const { format, width, height, pages } = await sharp(file, { ...OPTIONS, limitInputPixels: false })
    .metadata()
    .catch(() => {
      throw unknownType()
    })
  const type = TYPES[format]
  if (!type) throw unknownType(format)
  if (width * height * (pages ?? 1) > PICTURE_PIXELS_MAX)
    throw refused(
      `The picture has ${String(width)} × ${String(height)} pixels${(pages ?? 1) > 1 ? ` on ${String(pages)} pages` : ''}, which is more than Flimbo draws. Save it with at most ${String(PICTURE_PIXELS_MAX / 1_000_000)} million.`,
    )
  const upright = sharp(file, OPTIONS).timeout({ seconds: READ_SECONDS }).autoOrient().toColourspace('srgb')
  try {
    const { data, info } = await encoded(upright, type).toBuffer({ resolveWithObject: true })
    const preview = await previewOf(sharp(data, OPTIONS))
    return { type, width: info.width, height: info.height, bytes: data, preview }
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw damaged()
  }
}

/** In the format it came in, good enough for a press. */
function encoded(picture: Sharp, type: PictureType): Sharp {
  if (type === 'image/png') return picture.png({ compressionLevel: 7 })
  if (type === 'image/webp') return picture.webp({ quality: 95, smartSubsample: true })
  return picture.jpeg({ quality: 94, chromaSubsampling: '4:4:4' })
}

const previewOf = (picture: Sharp): Promise<Buffer> =>
  picture
    .timeout({ seconds: READ_SECONDS })
    .resize(PREVIEW_SIDE, PREVIEW_SIDE, { fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 90, effort: 1 })
    .toBuffer()

/** How many dots an inch a drawing is drawn at so that its longer side gets so many pixels. */
export function drawingDensity({ width, height }: { width: number; height: number }, side: number): number {
  return Math.min(2400, Math.max(1, (DRAWING_DPI * side) / Math.max(width, height)))
}

async function cleanDrawing(file: string): Promise<CleanPicture> {
  const text = await readFile(file, 'utf8')
  if (text.length > DRAWING_BYTES_MAX)
    throw refused(
      `The drawing is larger than ${String(DRAWING_BYTES_MAX / 1024 / 1024)} MB. Take pictures out of it, or save it as PNG.`,
    )
  let clean: string
  try {
    clean = harmlessSvg(text)
  } catch (error) {
    if (error instanceof NotADrawing) throw refused(error.message)
    throw error
  }
  const sharp = await loadSharp()
  const bytes = Buffer.from(clean)
  try {
    const { width, height } = await sharp(bytes, { ...OPTIONS, limitInputPixels: false }).metadata()
    const density = drawingDensity({ width, height }, PREVIEW_SIDE)
    const preview = await previewOf(sharp(bytes, { ...OPTIONS, density }))
    return { type: 'image/svg+xml', width, height, bytes, preview }
  } catch {
    throw refused('The drawing could not be drawn. Save it as plain SVG, with a size, and upload it again.')
  }
}
