import { crossRows, edgesOf } from './edges.ts'
import type { Area, Ink, Picture, Scene, Solid } from './scene.ts'

/** A picture as its pixels: red, green, blue and how opaque it is, a byte each, rows from the top. */
export interface Pixels {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray
}

/** Sampling lines a pixel; along them coverage is exact. */
const LINES = 4

/**
 * Draws a scene in colour, with soft edges: each pixel is covered as far as areas cover it.
 *
 * @param scale pixels a unit
 * @param pictures the pixels of uploaded pictures; one that is missing is left out
 * @returns pixels, transparent where nothing lies
 */
export function sceneColours(
  { width, height, marks }: Scene,
  scale: number,
  pictures: ReadonlyMap<string, Pixels> = new Map(),
): Pixels {
  const [columns, rows] = [Math.round(width * scale), Math.round(height * scale)]
  const data = new Uint8ClampedArray(columns * rows * 4)
  const canvas = { width: columns, height: rows, data }
  for (const mark of marks) {
    if (mark.kind === 'area') drawArea(canvas, mark, scale)
    else drawPicture(canvas, mark, scale, pictures.get(mark.file))
  }
  return canvas
}

function drawArea(canvas: Pixels, { outlines, ink }: Area, scale: number): void {
  const { width, height } = canvas
  const colourAt = colourOf(ink, scale)
  const covered = new Float32Array(width)
  let row = 0
  let touched = false
  const settle = () => {
    if (!touched) return
    for (let x = 0; x < width; x++) {
      const share = covered[x] ?? 0
      if (share > 0) blend(canvas, row * width + x, colourAt(x, row), Math.min(1, share))
    }
    covered.fill(0)
    touched = false
  }
  crossRows(edgesOf(outlines, scale), height * LINES, LINES, (line, crossings) => {
    const at = Math.floor(line / LINES)
    if (at !== row) settle()
    row = at
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, crossings[i] ?? 0)
      const to = Math.min(width, crossings[i + 1] ?? 0)
      if (to <= from) continue
      touched = true
      cover(covered, from, to)
    }
  })
  settle()
}

/** Adds what a stretch of a sampling line covers of each pixel. */
function cover(covered: Float32Array, from: number, to: number): void {
  const [first, last] = [Math.floor(from), Math.min(covered.length - 1, Math.floor(to))]
  if (first === last) {
    covered[first] = (covered[first] ?? 0) + (to - from) / LINES
    return
  }
  covered[first] = (covered[first] ?? 0) + (first + 1 - from) / LINES
  for (let x = first + 1; x < last; x++) covered[x] = (covered[x] ?? 0) + 1 / LINES
  covered[last] = (covered[last] ?? 0) + (to - last) / LINES
}

type Rgb = readonly [red: number, green: number, blue: number]

/** `#fff` or `#ffffff` as numbers up to 255. */
export function rgbOf(colour: string): Rgb {
  const digits = colour.slice(1)
  const long = digits.length === 3 ? [...digits].map((digit) => digit + digit).join('') : digits
  return [0, 2, 4].map((at) => parseInt(long.slice(at, at + 2), 16)) as unknown as Rgb
}

function colourOf(ink: Ink, scale: number): (x: number, y: number) => Rgb {
  if (ink.kind === 'solid') {
    const colour = rgbOf(ink.colour)
    return () => colour
  }
  const share = shareAt(ink)
  const [from, to] = ink.stops.map(({ colour }: Solid) => rgbOf(colour)) as [Rgb, Rgb]
  return (x, y) => {
    const t = Math.min(1, Math.max(0, share((x + 0.5) / scale, (y + 0.5) / scale)))
    return [0, 1, 2].map((i) => (from[i] ?? 0) + ((to[i] ?? 0) - (from[i] ?? 0)) * t) as unknown as Rgb
  }
}

/** How far along a gradient a point lies: 0 at its beginning, 1 at its end. */
function shareAt(ink: Exclude<Ink, Solid>): (x: number, y: number) => number {
  if (ink.kind === 'radial') {
    const { centre, radius } = ink
    return (x, y) => Math.hypot(x - centre[0], y - centre[1]) / radius
  }
  const { from, to } = ink
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const square = dx * dx + dy * dy
  return (x, y) => ((x - from[0]) * dx + (y - from[1]) * dy) / square
}

/** Lays a colour over a pixel ("source over", not premultiplied). */
function blend({ data }: Pixels, at: number, [red, green, blue]: Rgb, share: number): void {
  const i = at * 4
  const below = ((data[i + 3] ?? 0) / 255) * (1 - share)
  const all = share + below
  const mix = (over: number, under: number) => (over * share + under * below) / all
  data[i] = mix(red, data[i] ?? 0)
  data[i + 1] = mix(green, data[i + 1] ?? 0)
  data[i + 2] = mix(blue, data[i + 2] ?? 0)
  data[i + 3] = all * 255
}

/** Points of a picture that are looked at for each pixel, in each direction: enough where it is drawn smaller. */
const SAMPLES = 3

function drawPicture(canvas: Pixels, mark: Picture, scale: number, picture?: Pixels): void {
  if (!picture || picture.width === 0 || picture.height === 0) return
  const { turnDeg = 0 } = mark
  const [width, height] = [mark.width * scale, mark.height * scale]
  const [cx, cy] = [mark.x * scale + width / 2, mark.y * scale + height / 2]
  const angle = (turnDeg * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  // The upright box that the turned picture lies in.
  const across = (Math.abs(cos) * width + Math.abs(sin) * height) / 2
  const down = (Math.abs(sin) * width + Math.abs(cos) * height) / 2
  const [toX, toY] = [picture.width / width, picture.height / height]
  const lastRow = Math.min(canvas.height, Math.ceil(cy + down))
  const lastColumn = Math.min(canvas.width, Math.ceil(cx + across))
  for (let row = Math.max(0, Math.floor(cy - down)); row < lastRow; row++)
    for (let column = Math.max(0, Math.floor(cx - across)); column < lastColumn; column++) {
      const sum = [0, 0, 0, 0] as [number, number, number, number]
      for (let i = 0; i < SAMPLES; i++)
        for (let j = 0; j < SAMPLES; j++) {
          const [dx, dy] = [column + (i + 0.5) / SAMPLES - cx, row + (j + 0.5) / SAMPLES - cy]
          addSample(
            sum,
            picture,
            Math.floor((dx * cos + dy * sin + width / 2) * toX),
            Math.floor((dy * cos - dx * sin + height / 2) * toY),
          )
        }
      const [red, green, blue, opaque] = sum
      if (opaque === 0) continue
      const share = opaque / (SAMPLES * SAMPLES)
      blend(canvas, row * canvas.width + column, [red / opaque, green / opaque, blue / opaque], share)
    }
}

function addSample(
  sum: [number, number, number, number],
  { width, height, data }: Pixels,
  x: number,
  y: number,
) {
  if (x < 0 || y < 0 || x >= width || y >= height) return
  const i = (y * width + x) * 4
  const opaque = (data[i + 3] ?? 0) / 255
  for (let each = 0; each < 3; each++) sum[each] = (sum[each] ?? 0) + (data[i + each] ?? 0) * opaque
  sum[3] += opaque
}
