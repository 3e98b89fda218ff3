import { deflateSync } from 'node:zlib'
import PDFDocument from 'pdfkit'
import {
  cmykOf,
  type ColourSpace,
  type Finished,
  type Ink,
  type Outline,
  type Pixels,
  type Scene,
  type Solid,
} from '@flimbo/core/symbol'

/** Points of PDF a millimetre. */
export const POINTS = 72 / 25.4
const DIGITS = 4
const written = (value: number) => String(Number(value.toFixed(DIGITS)))

type Document = PDFKit.PDFDocument
export type Pictures = ReadonlyMap<string, Pixels>

/** What a document is made with. */
export interface PdfStyle {
  readonly title: string
  readonly space: ColourSpace
}

/** A document without pages, its outlines and inks as vectors. It says nothing of when it was made: the same scenes give the same bytes. */
export function newDocument({ title }: Pick<PdfStyle, 'title'>): Document {
  return new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    compress: true,
    // Texts are outlines: no font is needed, nor looked for on the disk.
    font: null as unknown as string,
    info: {
      Title: title,
      Creator: 'Flimbo',
      Producer: 'Flimbo',
      CreationDate: new Date(0),
      ModDate: new Date(0),
    },
  })
}

/** Adds a page as large as a scene, with what is cut and what bleeds over the cut said in its boxes (ISO 32000-1, section 14.11.2). */
export function addPage(
  doc: Document,
  { scene, trimMm, bleedMm }: Finished,
  space: ColourSpace,
  pictures: Pictures,
): void {
  const [width, height] = [scene.width * scene.unitMm * POINTS, scene.height * scene.unitMm * POINTS]
  doc.addPage({ size: [width, height], margin: 0 })
  const boxAt = (insetMm: number) => {
    const inset = insetMm * POINTS
    return [inset, inset, width - inset, height - inset]
  }
  const page = doc.page.dictionary.data as Record<string, unknown>
  page.TrimBox = boxAt(trimMm)
  page.BleedBox = boxAt(trimMm - bleedMm)
  drawScene(doc, scene, space, pictures)
}

/** Draws a scene on the page of a document that is being made, from its upper left corner. */
export function drawScene(
  doc: Document,
  { unitMm, marks }: Scene,
  space: ColourSpace,
  pictures: Pictures,
): void {
  const scale = unitMm * POINTS
  doc.save()
  doc.scale(scale)
  for (const mark of marks) {
    if (mark.kind === 'area') {
      setInk(doc, mark.ink, space)
      doc.addContent(`${mark.outlines.map(pathOf).join('\n')}\nf*`)
      continue
    }
    const pixels = pictures.get(mark.file)
    if (pixels) drawPicture(doc, mark, mark.file, pixels, space)
  }
  doc.restore()
}

function pathOf([start, ...rest]: Outline): string {
  if (!start) return ''
  const steps = rest.map((step) => `${step.map(written).join(' ')} ${step.length === 6 ? 'c' : 'l'}`)
  return `${start.map(written).join(' ')} m ${steps.join(' ')} h`
}

/** A colour as PDFKit takes it: three numbers to 255, or four to 100. */
function colourOf(
  solid: Solid,
  space: ColourSpace,
): [number, number, number] | [number, number, number, number] {
  if (space === 'cmyk') return cmykOf(solid).map((value) => value * 100) as [number, number, number, number]
  const digits = solid.colour.slice(1)
  const long = digits.length === 3 ? [...digits].map((digit) => digit + digit).join('') : digits
  return [0, 2, 4].map((at) => parseInt(long.slice(at, at + 2), 16)) as [number, number, number]
}

function setInk(doc: Document, ink: Ink, space: ColourSpace): void {
  if (ink.kind === 'solid') {
    doc.fillColor(colourOf(ink, space))
    return
  }
  const gradient =
    ink.kind === 'linear'
      ? doc.linearGradient(ink.from[0], ink.from[1], ink.to[0], ink.to[1])
      : doc.radialGradient(ink.centre[0], ink.centre[1], 0, ink.centre[0], ink.centre[1], ink.radius)
  const [from, to] = ink.stops
  // Its types know names of colours alone; it takes what `fillColor` takes.
  const stop = (solid: Solid) => colourOf(solid, space) as unknown as string
  gradient.stop(0, stop(from)).stop(1, stop(to))
  doc.fillColor(gradient)
}

/** Pictures that a document holds already, by the file and how it says colours: each is stored once. */
const held = new WeakMap<Document, Map<string, PDFKit.PDFKitReference>>()

/** Bytes of a picture as the press takes them, and how opaque each pixel is; null where all are. */
function bytesOf(
  { data }: Pixels,
  space: ColourSpace,
): { colours: Uint8Array; opaqueness: Uint8Array | null } {
  const count = data.length / 4
  const channels = space === 'cmyk' ? 4 : 3
  const colours = new Uint8Array(count * channels)
  const opaqueness = new Uint8Array(count)
  let isOpaque = true
  for (let i = 0; i < count; i++) {
    const opaque = data[i * 4 + 3] ?? 255
    opaqueness[i] = opaque
    if (opaque < 255) isOpaque = false
    const [red, green, blue] = [data[i * 4] ?? 0, data[i * 4 + 1] ?? 0, data[i * 4 + 2] ?? 0]
    if (space === 'rgb') colours.set([red, green, blue], i * 3)
    else {
      const black = Math.max(red, green, blue)
      // As `cmykOf` has it, without a text for every pixel.
      const ink = (value: number) => (black === 0 ? 0 : Math.round((1 - value / black) * 255))
      colours.set([ink(red), ink(green), ink(blue), 255 - black], i * 4)
    }
  }
  return { colours, opaqueness: isOpaque ? null : opaqueness }
}

function pictureIn(doc: Document, file: string, pixels: Pixels, space: ColourSpace): PDFKit.PDFKitReference {
  const known = held.get(doc) ?? new Map<string, PDFKit.PDFKitReference>()
  held.set(doc, known)
  const there = known.get(file)
  if (there) return there
  const { colours, opaqueness } = bytesOf(pixels, space)
  const image = (data: Uint8Array, more: Record<string, unknown>) => {
    const packed = deflateSync(data)
    const ref = doc.ref({
      Type: 'XObject',
      Subtype: 'Image',
      Width: pixels.width,
      Height: pixels.height,
      BitsPerComponent: 8,
      Filter: 'FlateDecode',
      Length: packed.length,
      ...more,
    })
    ref.end(packed)
    return ref
  }
  const mask = opaqueness && image(opaqueness, { ColorSpace: 'DeviceGray' })
  const ref = image(colours, {
    ColorSpace: space === 'cmyk' ? 'DeviceCMYK' : 'DeviceRGB',
    Interpolate: true,
    ...(mask ? { SMask: mask } : {}),
  })
  known.set(file, ref)
  return ref
}

interface Place {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly turnDeg?: number
}

function drawPicture(
  doc: Document,
  { x, y, width, height, turnDeg = 0 }: Place,
  file: string,
  pixels: Pixels,
  space: ColourSpace,
): void {
  const name = `P${file.slice(0, 16)}`
  const known = doc.page.xobjects as Record<string, unknown>
  known[name] = pictureIn(doc, file, pixels, space)
  const angle = (turnDeg * Math.PI) / 180
  const turn = [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle)].map(written).join(' ')
  const middle = `${written(x + width / 2)} ${written(y + height / 2)}`
  // Pictures stand upright in PDF; the page here is turned upside down.
  const box = `${written(width)} 0 0 ${written(-height)} ${written(-width / 2)} ${written(height / 2)}`
  doc.addContent(`q 1 0 0 1 ${middle} cm ${turn} 0 0 cm ${box} cm /${name} Do Q`)
}

/** All that a document holds once it has ended. */
export async function wholeOf(doc: Document): Promise<Uint8Array> {
  const parts: Buffer[] = []
  for await (const part of doc) parts.push(part as Buffer)
  return Buffer.concat(parts)
}

/** A document of one page. */
export function scenePdf(
  page: Finished,
  { title, space }: PdfStyle,
  pictures: Pictures,
): Promise<Uint8Array> {
  const doc = newDocument({ title })
  addPage(doc, page, space, pictures)
  doc.end()
  return wholeOf(doc)
}
