import { cmykOf } from './cmyk.ts'
import { rgbOf, type Pixels } from './colourPixels.ts'
import { isCurve, type Outline } from './path.ts'
import type { Area, Ink, Picture, Scene, Solid } from './scene.ts'

/** How colours are told to a press. */
export type ColourSpace = 'rgb' | 'cmyk'

/** Points of PostScript a millimetre. */
const POINTS = 72 / 25.4
const DIGITS = 4
const written = (value: number) => String(Number(value.toFixed(DIGITS)))

/**
 * A scene as an encapsulated PostScript file (EPSF-3.0, PostScript language level 3), as large as it is printed: lines
 * and curves, no fonts, so that nothing can be missing at the printer's.
 *
 * @param pictures the pixels of uploaded pictures; one that is missing is left out. What is transparent in them shows
 * white, since PostScript knows no transparency
 */
export function sceneEps(
  { title, unitMm, width, height, marks }: Scene,
  space: ColourSpace,
  pictures: ReadonlyMap<string, Pixels> = new Map(),
): string {
  const scale = unitMm * POINTS
  const [right, top] = [width * scale, height * scale]
  const lines = [
    '%!PS-Adobe-3.0 EPSF-3.0',
    `%%BoundingBox: 0 0 ${String(Math.ceil(right - 1e-6))} ${String(Math.ceil(top - 1e-6))}`,
    `%%HiResBoundingBox: 0 0 ${written(right)} ${written(top)}`,
    `%%Title: (${asciiOnly(title)})`,
    '%%Creator: Flimbo',
    '%%LanguageLevel: 3',
    `%%DocumentProcessColors: ${space === 'cmyk' ? 'Cyan Magenta Yellow Black' : 'Red Green Blue'}`,
    '%%EndComments',
    '/m {moveto} bind def /l {lineto} bind def /c {curveto} bind def /z {closepath} bind def',
    'gsave',
    // Scenes begin at the upper left and go down; pages begin at the lower left.
    `0 ${written(top)} translate ${written(scale)} ${written(-scale)} scale`,
    ...marks.flatMap((mark) =>
      mark.kind === 'area' ? areaLines(mark, space) : pictureLines(mark, space, pictures.get(mark.file)),
    ),
    'grestore',
    'showpage',
    '%%EOF',
    '',
  ]
  return lines.join('\n')
}

/** Comments of a document are plain ASCII, their brackets and backslashes escaped (Adobe DSC 3.0, section 3). */
const asciiOnly = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .slice(0, 200)
    .replace(/[()\\]/g, '\\$&')

const pathLines = (outlines: readonly Outline[]) => outlines.map(pathLine)

function pathLine(outline: Outline): string {
  const [start, ...rest] = outline
  if (!start || isCurve(start)) return ''
  const steps = rest.map((step) => `${step.map(written).join(' ')} ${isCurve(step) ? 'c' : 'l'}`)
  return `${start.map(written).join(' ')} m ${steps.join(' ')} z`
}

function areaLines({ outlines, ink }: Area, space: ColourSpace): string[] {
  if (ink.kind === 'solid') return [colourLine(ink, space), 'newpath', ...pathLines(outlines), 'eofill']
  return ['gsave newpath', ...pathLines(outlines), 'eoclip', shadingLine(ink, space), 'grestore']
}

const valuesOf = (solid: Solid, space: ColourSpace): readonly number[] =>
  space === 'cmyk' ? cmykOf(solid) : rgbOf(solid.colour).map((value) => value / 255)

function colourLine(solid: Solid, space: ColourSpace): string {
  return `${valuesOf(solid, space).map(written).join(' ')} ${space === 'cmyk' ? 'setcmykcolor' : 'setrgbcolor'}`
}

/** A smooth shading: axial (2) or radial (3), going on beyond both ends (PostScript Language Reference, section 4.9.3). */
function shadingLine(ink: Exclude<Ink, Solid>, space: ColourSpace): string {
  const [from, to] = ink.stops.map((stop) => valuesOf(stop, space).map(written).join(' '))
  const coordinates =
    ink.kind === 'linear' ? [...ink.from, ...ink.to] : [...ink.centre, 0, ...ink.centre, ink.radius]
  return [
    `<< /ShadingType ${ink.kind === 'linear' ? '2' : '3'} /ColorSpace /Device${space === 'cmyk' ? 'CMYK' : 'RGB'}`,
    `/Coords [${coordinates.map(written).join(' ')}] /Extend [true true]`,
    `/Function << /FunctionType 2 /Domain [0 1] /C0 [${from ?? ''}] /C1 [${to ?? ''}] /N 1 >> >> shfill`,
  ].join(' ')
}

/** Bytes of hexadecimal digits a line: documents keep lines under 255 signs (Adobe DSC 3.0, section 3). */
const LINE_BYTES = 80

function pictureLines(picture: Picture, space: ColourSpace, pixels?: Pixels): string[] {
  if (!pixels || pixels.width === 0 || pixels.height === 0) return []
  const { x, y, width, height, turnDeg = 0 } = picture
  const [columns, rows] = [String(pixels.width), String(pixels.height)]
  const bytes = pictureBytes(pixels, space)
  const digits: string[] = []
  for (let i = 0; i < bytes.length; i += LINE_BYTES)
    digits.push(
      Array.from(bytes.subarray(i, i + LINE_BYTES), (byte) => byte.toString(16).padStart(2, '0')).join(''),
    )
  const ranges = Array.from({ length: space === 'cmyk' ? 4 : 3 }, () => '0 1').join(' ')
  return [
    `gsave ${written(x + width / 2)} ${written(y + height / 2)} translate ${written(turnDeg)} rotate`,
    `${written(-width / 2)} ${written(-height / 2)} translate ${written(width)} ${written(height)} scale`,
    `/Device${space === 'cmyk' ? 'CMYK' : 'RGB'} setcolorspace`,
    `<< /ImageType 1 /Width ${columns} /Height ${rows} /BitsPerComponent 8 /Decode [${ranges}]`,
    `/ImageMatrix [${columns} 0 0 ${rows} 0 0] /Interpolate true`,
    '/DataSource currentfile /ASCIIHexDecode filter >> image',
    ...digits,
    '>',
    'grestore',
  ]
}

function pictureBytes({ data }: Pixels, space: ColourSpace): Uint8Array {
  const channels = space === 'cmyk' ? 4 : 3
  const bytes = new Uint8Array((data.length / 4) * channels)
  for (let i = 0; i < data.length / 4; i++) {
    const opaque = (data[i * 4 + 3] ?? 0) / 255
    const rgb = [0, 1, 2].map((each) => Math.round((data[i * 4 + each] ?? 0) * opaque + 255 * (1 - opaque)))
    const colour = `#${rgb.map((value) => value.toString(16).padStart(2, '0')).join('')}`
    const values =
      space === 'cmyk' ? cmykOf({ kind: 'solid', colour }).map((value) => Math.round(value * 255)) : rgb
    bytes.set(values, i * channels)
  }
  return bytes
}
