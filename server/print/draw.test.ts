import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULT_FINISH, PLAIN_LOOK, type Finish, type Look } from '@flimbo/core/symbol'
import { jsqr, zxing } from '../../bench/decoders.ts'
import { frameOf, rendered } from '../../bench/ghostscript.ts'
import { draw, type PrintPiece } from './draw.ts'

const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'
const GULL = 'a'.repeat(64)
const POSTER = 'd'.repeat(64)
const directory = mkdtempSync(join(tmpdir(), 'flimbo-draw-'))
const logo = join(directory, 'gull.png')
beforeAll(async () => {
  // A petrol square with a corner that is clear.
  const clear = { input: Buffer.alloc(20 * 20 * 4), raw: { width: 20, height: 20, channels: 4 as const } }
  writeFileSync(
    logo,
    await sharp({ create: { width: 40, height: 40, channels: 4, background: '#0c5a66' } })
      .composite([{ ...clear, left: 0, top: 0, blend: 'source' }])
      .png()
      .toBuffer(),
  )
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const petrol = { rgb: '#0c5a66', cmyk: [90, 40, 45, 30] as [number, number, number, number] }
const white = { rgb: '#ffffff', cmyk: null }
const black = { rgb: '#000000', cmyk: [0, 0, 0, 100] as [number, number, number, number] }
const STYLED: Look = {
  ...PLAIN_LOOK,
  modules: { shape: 'flowing', size: 1 },
  finder: { ring: 'rounded', centre: 'rounded', ringTint: null, centreTint: petrol },
  ink: { kind: 'linear', from: petrol, to: black, angle: 45 },
  logo: { file: GULL, share: 0.2, margin: 1, plate: 'square', plateTint: white, cleared: true },
  surround: {
    line: 0.6,
    corner: 2,
    padding: 1,
    tint: black,
    textTint: black,
    caption: 'Fahrplan für Wattenmeer',
    captionAt: 'above',
    link: true,
  },
}
const piece = (look: Look, mm = 30): PrintPiece => ({
  name: 'Pier (west)',
  text: TEXT,
  level: 'Q',
  mm,
  look,
  placement: null,
  link: 'go.saltmarsh.example/PIER',
  files: { [GULL]: { path: logo, type: 'image/png', width: 40, height: 40 } },
})
async function made(look: Look, how: Partial<Finish>, mm = 30) {
  const drawn = await draw(piece(look, mm), { ...DEFAULT_FINISH, ...how })
  if (!drawn.ok) throw new Error(drawn.sentence)
  return drawn
}
const DPI = 300
const pixels = (mm: number) => Math.round((mm / 25.4) * DPI)
/** A document as Ghostscript draws it, so many pixels a side. */
function drawnBy(bytes: Uint8Array, widthMm: number, heightMm: number) {
  const pixel = rendered(bytes, 'bitrgb', DPI)
  const width = pixels(widthMm)
  expect(pixel.length % (width * 3)).toBe(0)
  const height = pixel.length / width / 3
  // Ghostscript rounds a page of any size to whole pixels in its own way.
  expect(Math.abs(height - pixels(heightMm))).toBeLessThanOrEqual(1)
  return frameOf(pixel, width, height)
}
/** XResolution of the first directory, in dots per inch (Exif 2.32, section 4.6.5). */
function exifDpi(exif: Buffer = Buffer.alloc(0)): number {
  const tiff = exif.subarray(6)
  const first = tiff.readUInt32LE(4)
  for (let i = 0; i < tiff.readUInt16LE(first); i++) {
    const entry = first + 2 + i * 12
    const at = tiff.readUInt32LE(entry + 8)
    if (tiff.readUInt16LE(entry) === 0x011a) return tiff.readUInt32LE(at) / tiff.readUInt32LE(at + 4)
  }
  throw new Error('No resolution')
}
const boxesOf = (bytes: Uint8Array) => {
  const text = Buffer.from(bytes).toString('latin1')
  const box = (name: string) =>
    (new RegExp(`/${name} \\[([^\\]]+)\\]`).exec(text)?.[1] ?? '')
      .split(' ')
      .map((points) => (Number(points) * 25.4) / 72)
  return { media: box('MediaBox'), trim: box('TrimBox'), bleed: box('BleedBox') }
}

describe('a piece as a PDF, rendered by Ghostscript', () => {
  it.each<[string, Look, Finish['colours']]>([
    ['plain', PLAIN_LOOK, 'cmyk'],
    ['in its look', STYLED, 'rgb'],
    ['in its look, in the four inks', STYLED, 'cmyk'],
  ])(
    '%s is as large as it says and is read by both decoders',
    async (_what, look, colours) => {
      const { bytes, widthMm, heightMm } = await made(look, { format: 'pdf', colours })
      const { media } = boxesOf(bytes)
      expect(media[2]).toBeCloseTo(widthMm, 3)
      expect(media[3]).toBeCloseTo(heightMm, 3)
      const frame = drawnBy(bytes, widthMm, heightMm)
      expect([await zxing(frame), await jsqr(frame)]).toEqual([TEXT, TEXT])
    },
    30_000,
  )

  it('prints black as black ink alone, and a house colour in the four values that were said', async () => {
    const inks = new Set<string>()
    const { bytes } = await made(PLAIN_LOOK, { format: 'pdf', colours: 'cmyk' })
    const plain = rendered(bytes, 'bitcmyk', 72)
    for (let i = 0; i < plain.length; i += 4) inks.add(plain.subarray(i, i + 3).join())
    expect([...inks]).toEqual(['0,0,0'])
    const house = { ...PLAIN_LOOK, ink: { kind: 'solid' as const, tint: petrol } }
    const coloured = rendered((await made(house, { format: 'pdf', colours: 'cmyk' })).bytes, 'bitcmyk', 300)
    const found = new Set<string>()
    for (let i = 0; i < coloured.length; i += 4)
      found.add([...coloured.subarray(i, i + 4)].map((value) => Math.round((value / 255) * 100)).join())
    expect(found).toContain('90,40,45,30')
  }, 30_000)

  it('holds the picture that it lies on, turned, and is read there', async () => {
    const poster = join(directory, 'poster.png')
    const petrolOnly = { width: 40, height: 40, channels: 3 as const, background: '#0c5a66' }
    writeFileSync(poster, await sharp({ create: petrolOnly }).png().toBuffer())
    const files = { [POSTER]: { path: poster, type: 'image/png' as const, width: 40, height: 40 } }
    const placement = { file: POSTER, widthMm: 90, xMm: 50, yMm: 40, turnDeg: 25 }
    const drawn = await draw(
      { ...piece(PLAIN_LOOK), files, placement },
      { ...DEFAULT_FINISH, format: 'pdf', colours: 'rgb' },
    )
    if (!drawn.ok) throw new Error(drawn.sentence)
    expect([drawn.widthMm, drawn.heightMm]).toEqual([90, 90])
    const frame = drawnBy(drawn.bytes, 90, 90)
    expect([await zxing(frame), await jsqr(frame)]).toEqual([TEXT, TEXT])
    // Petrol all about the symbol.
    const i = (pixels(80) * frame.width + pixels(80)) * 4
    expect([...frame.data.subarray(i, i + 3)]).toEqual([12, 90, 102])
  }, 30_000)

  it('bleeds over its cut, and shows where that is', async () => {
    const { bytes, widthMm } = await made(
      { ...PLAIN_LOOK, ground: { kind: 'solid', tint: { rgb: '#faf0d0', cmyk: [0, 4, 20, 0] } } },
      { format: 'pdf', bleedMm: 3, cutMarks: 'yes' },
    )
    // 30 mm, and on each side 3 mm of bleed and 5 mm of cut marks.
    expect(widthMm).toBeCloseTo(46, 6)
    const { trim, bleed } = boxesOf(bytes)
    for (const [i, at] of [8, 8, 38, 38].entries()) expect(trim[i]).toBeCloseTo(at, 3)
    for (const [i, at] of [5, 5, 41, 41].entries()) expect(bleed[i]).toBeCloseTo(at, 3)
    const frame = drawnBy(bytes, widthMm, widthMm)
    const at = (x: number, y: number) => {
      const i = (pixels(y) * frame.width + pixels(x)) * 4
      return [...frame.data.subarray(i, i + 3)]
    }
    expect(at(4, 20)).toEqual([255, 255, 255])
    expect(at(6, 20)[2]).toBeLessThan(230)
    expect(Math.max(...at(2.5, 8))).toBeLessThan(120)
    expect(await zxing(frame)).toBe(TEXT)
  }, 30_000)

  it('is the same to the byte whenever it is made', async () => {
    const [one, other] = [await made(STYLED, { format: 'pdf' }), await made(STYLED, { format: 'pdf' })]
    expect(Buffer.compare(one.bytes, other.bytes)).toBe(0)
  })
})

describe('a piece as a picture', () => {
  it.each([
    ['png', 'plain', PLAIN_LOOK],
    ['png', 'in its look', STYLED],
    ['jpeg', 'in its look', STYLED],
    ['webp', 'in its look', STYLED],
  ] as const)('%s, %s: its millimetres stand in the file, and it is read', async (format, _what, look) => {
    const { bytes, widthMm } = await made(look, { format, dpi: 300 })
    const { width, density, exif } = await sharp(bytes).metadata()
    const dpi = density ?? exifDpi(exif)
    expect(((width / dpi) * 25.4) / widthMm).toBeCloseTo(1, 2)
    expect(dpi).toBeGreaterThanOrEqual(300)
    const { data, info } = await sharp(bytes)
      .ensureAlpha()
      .toColourspace('srgb')
      .raw()
      .toBuffer({ resolveWithObject: true })
    const frame = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) }
    expect([await zxing(frame), await jsqr(frame)]).toEqual([TEXT, TEXT])
  })

  it('has a ground that is none where that is wanted', async () => {
    const { bytes } = await made(STYLED, { format: 'png', ground: 'transparent', surround: 'without' })
    const { data } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true })
    expect(data[3]).toBe(0)
  })

  it('that would be larger than anything that is drawn is refused with what to do', async () => {
    const drawn = await draw(piece(STYLED, 5000), { ...DEFAULT_FINISH, format: 'png', dpi: 2400 })
    expect(drawn).toMatchObject({ ok: false, field: 'dpi' })
    const colours = await draw(piece(STYLED, 600), { ...DEFAULT_FINISH, format: 'png', dpi: 400 })
    expect(colours).toMatchObject({ ok: false, field: 'dpi' })
  })
})

describe('a piece as SVG', () => {
  it('holds its picture, and is read as a browser’s own drawing is', async () => {
    const { bytes } = await made(STYLED, { format: 'svg' })
    expect(Buffer.from(bytes).toString()).toContain('href="data:image/png;base64,')
    const { data, info } = await sharp(bytes, { density: 300 })
      .flatten({ background: '#fff' })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    const frame = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) }
    expect([await zxing(frame), await jsqr(frame)]).toEqual([TEXT, TEXT])
  })

  it('is measured with its quiet zone, or without it', async () => {
    const [whole, modules] = [
      await made(PLAIN_LOOK, { format: 'svg' }),
      await made(PLAIN_LOOK, { format: 'svg', measure: 'modules' }),
    ]
    expect(whole.widthMm).toBeCloseTo(30, 9)
    // 29 modules a side, and 37 with the quiet zone (ISO/IEC 18004, version 3).
    expect(modules.widthMm / 30).toBeCloseTo(37 / 29, 9)
  })
})
