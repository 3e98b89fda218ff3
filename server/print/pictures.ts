import { LRUCache } from 'lru-cache'
import type { PictureType } from '@flimbo/core/files'
import type { Picture, Pixels, Scene } from '@flimbo/core/symbol'
import { drawingDensity } from '../files/index.ts'

/** An uploaded picture that a thread may read. */
export interface PictureFile {
  readonly path: string
  readonly type: PictureType
  readonly width: number
  readonly height: number
}
export type PictureFiles = Readonly<Record<string, PictureFile>>

/** Resolution that pictures are printed at: more is lost on paper. Common practice, no published source. */
const PRINT_DPI = 300
/** Logos are small, and have lines: these may be finer. */
const FINE_DPI = 600
const FINE_MM = 60
const SIDE_MAX = 4000
const MM_PER_INCH = 25.4

/** The pixels that the longer side of a picture is printed with. */
function sideFor(
  { width, height }: Picture,
  unitMm: number,
  { type, ...size }: PictureFile,
  dpi?: number,
): number {
  const mm = Math.max(width, height) * unitMm
  const wanted = Math.ceil((mm / MM_PER_INCH) * (dpi ?? (mm <= FINE_MM ? FINE_DPI : PRINT_DPI)))
  const own = type === 'image/svg+xml' ? SIDE_MAX : Math.max(size.width, size.height)
  return Math.max(1, Math.min(wanted, own, SIDE_MAX))
}

const load = async () => (await import('sharp')).default

async function opened(file: PictureFile, side: number) {
  const sharp = await load()
  const density = file.type === 'image/svg+xml' ? { density: drawingDensity(file, side) } : {}
  return sharp(file.path, density).resize(side, side, {
    fit: 'inside',
    withoutEnlargement: file.type !== 'image/svg+xml',
  })
}

/** Pictures unfolded lately, by file and side: the logo of a thousand pieces is unfolded once. */
const unfolded = new LRUCache<string, Pixels>({
  maxSize: 128 * 1024 * 1024,
  sizeCalculation: ({ data }) => Math.max(1, data.length),
})

async function pixelsOf(file: PictureFile, side: number): Promise<Pixels> {
  const key = `${String(side)} ${file.path}`
  const there = unfolded.get(key)
  if (there) return there
  const image = await opened(file, side)
  const { data, info } = await image
    .ensureAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true })
  const pixels = {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  }
  unfolded.set(key, pixels)
  return pixels
}

const picturesIn = ({ marks }: Scene) => marks.filter((mark): mark is Picture => mark.kind === 'picture')

/** The pixels of the pictures in a scene, as fine as they are printed; one that is not there is left out. */
export async function pixelsFor(
  scene: Scene,
  files: PictureFiles,
  dpi?: number,
): Promise<Map<string, Pixels>> {
  const found = new Map<string, Pixels>()
  for (const picture of picturesIn(scene)) {
    const file = files[picture.file]
    if (!file || found.has(picture.file)) continue
    found.set(picture.file, await pixelsOf(file, sideFor(picture, scene.unitMm, file, dpi)))
  }
  return found
}

/** The pictures in a scene as `data:` addresses (RFC 2397), so that a file needs nothing beside it: drawings as they are. */
export async function addressesFor(scene: Scene, files: PictureFiles): Promise<Map<string, string>> {
  const found = new Map<string, string>()
  for (const picture of picturesIn(scene)) {
    const file = files[picture.file]
    if (!file || found.has(picture.file)) continue
    const bytes =
      file.type === 'image/svg+xml'
        ? await (await import('node:fs/promises')).readFile(file.path)
        : await (await opened(file, sideFor(picture, scene.unitMm, file))).png().toBuffer()
    const type = file.type === 'image/svg+xml' ? file.type : 'image/png'
    found.set(picture.file, `data:${type};base64,${bytes.toString('base64')}`)
  }
  return found
}
