import type { Sharp } from 'sharp'

/** Widths in pixels that pages show pictures in: half and all of a phone's screen at three pixels to one of CSS. */
const WIDTHS = [540, 1080] as const
const SECONDS = 60

/** What follows the name of a file where it lies in one of its widths and formats. */
export const variantSuffix = (width: number, format: string): string => `.w${String(width)}.${format}`

/** Good for a screen held in the hand; AVIF at the least effort takes a fifth of a second. */
const ENCODERS: Readonly<Record<string, (picture: Sharp) => Sharp>> = {
  avif: (picture) => picture.avif({ quality: 52, effort: 2 }),
  webp: (picture) => picture.webp({ quality: 76, effort: 4 }),
  // What is seen through in the picture is white in the format that knows no transparency.
  jpg: (picture) => picture.flatten({ background: '#ffffff' }).jpeg({ quality: 78, mozjpeg: true }),
}

/**
 * Makes what pages show of a picture: in one or two widths, as AVIF, WebP and JPEG.
 *
 * @param width its own, in pixels: it is made no larger
 */
export async function pictureVariants(
  bytes: Uint8Array,
  width: number,
): Promise<{ widths: number[]; files: Record<string, Buffer> }> {
  const sharp = (await import('sharp')).default
  const smaller = WIDTHS.filter((each) => each < width)
  const widths = smaller.length === WIDTHS.length ? [...smaller] : [...smaller, Math.round(width)]
  const files: Record<string, Buffer> = {}
  for (const each of widths)
    for (const [format, encode] of Object.entries(ENCODERS))
      files[variantSuffix(each, format)] = await encode(
        sharp(bytes).timeout({ seconds: SECONDS }).resize({ width: each }),
      ).toBuffer()
  return { widths, files }
}
