import { reflectance } from '../artwork.ts'
import type { Pixels } from '../colourPixels.ts'

/** A picture as the light it throws back or lets in, 0 to 1 and linear; rows from the top. */
export interface Light {
  readonly width: number
  readonly height: number
  readonly values: Float32Array
}

/** What a drawn artwork throws back; where it is transparent, the paper does. */
export function lightOf({ width, height, data }: Pixels, paper: number): Light {
  const values = new Float32Array(width * height)
  // Few colours fill most of an artwork: the last one is often the next one.
  let [last, lastLight] = [-1, 0]
  for (let i = 0; i < values.length; i++) {
    const [red = 0, green = 0, blue = 0] = [data[i * 4], data[i * 4 + 1], data[i * 4 + 2]]
    const key = (red << 16) | (green << 8) | blue
    if (key !== last) [last, lastLight] = [key, reflectance(red, green, blue)]
    const opaque = (data[i * 4 + 3] ?? 0) / 255
    values[i] = lastLight * opaque + paper * (1 - opaque)
  }
  return { width, height, values }
}

/** Lets ink run (above 0) or fail to take (below 0), by so many pixels at every edge. */
export function withInkSpread(light: Light, pixels: number): Light {
  const radius = Math.abs(pixels)
  if (radius < 0.25) return light
  const { width, height, values } = light
  const reach = Math.ceil(radius)
  const darker = pixels > 0
  const out = values.slice()
  for (let dy = -reach; dy <= reach; dy++)
    for (let dx = -reach; dx <= reach; dx++)
      if (Math.hypot(dx, dy) <= radius + 0.25) spread(values, out, width, height, dx, dy, darker)
  return { width, height, values: out }
}

/** Takes for each pixel the darker, or the lighter, of what it has and what lies so far from it. */
function spread(
  values: Float32Array,
  out: Float32Array,
  width: number,
  height: number,
  dx: number,
  dy: number,
  darker: boolean,
): void {
  const [fromX, toX] = [Math.max(0, -dx), Math.min(width, width - dx)]
  for (let y = Math.max(0, -dy); y < Math.min(height, height - dy); y++) {
    const row = y * width
    const shift = dy * width + dx
    for (let i = row + fromX; i < row + toX; i++) {
      const there = values[i + shift] ?? 0
      const here = out[i] ?? 0
      if (darker ? there < here : there > here) out[i] = there
    }
  }
}

/** Blurs by a bell curve of a standard deviation in pixels, each direction by its own. */
export function blurred({ width, height, values }: Light, sigmaX: number, sigmaY: number): Light {
  const across = blurredAlong(values, width, height, 1, sigmaX)
  return { width, height, values: blurredAlong(across, height, width, width, sigmaY) }
}

/** From this deviation on three running means are as good as a bell curve (Wells, IEEE PAMI 8, 1986, from memory). */
const WIDE = 1.5

/** Blurs lines of `length` pixels that are `step` apart; those of rows and of columns alike. */
function blurredAlong(
  values: Float32Array,
  length: number,
  lines: number,
  step: number,
  sigma: number,
): Float32Array {
  if (sigma < 0.05) return values
  const out = new Float32Array(values.length)
  const line = new Float32Array(length)
  const spare = new Float32Array(length)
  const blur = sigma < WIDE ? bellOf(sigma) : meansOf(sigma)
  const apart = step === 1 ? length : 1
  for (let each = 0; each < lines; each++) {
    const first = each * apart
    for (let i = 0; i < length; i++) line[i] = values[first + i * step] ?? 0
    const done = blur(line, spare)
    for (let i = 0; i < length; i++) out[first + i * step] = done[i] ?? 0
  }
  return out
}

/** Blurs a line into another, or back: what it is blurred into is returned. */
type BlurLine = (line: Float32Array, spare: Float32Array) => Float32Array

function bellOf(sigma: number): BlurLine {
  const reach = Math.ceil(sigma * 3)
  const bell = Float32Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sigma ** 2)),
  )
  const whole = bell.reduce((sum, weight) => sum + weight, 0)
  const weights = bell.map((weight) => weight / whole)
  let padded = new Float32Array(0)
  return (line, spare) => {
    // The ends are drawn out, so that nothing need be asked at them.
    const { length } = line
    if (padded.length !== length + 2 * reach) padded = new Float32Array(length + 2 * reach)
    padded.fill(line[0] ?? 0, 0, reach)
    padded.set(line, reach)
    padded.fill(line[length - 1] ?? 0, reach + length)
    spare.fill(0)
    for (let w = 0; w < weights.length; w++) {
      const weight = weights[w] ?? 0
      for (let i = 0; i < length; i++) spare[i] = (spare[i] ?? 0) + weight * (padded[i + w] ?? 0)
    }
    return spare
  }
}

function meansOf(sigma: number): BlurLine {
  // Three means over 2 r + 1 pixels have the deviation of the bell curve together.
  const reach = Math.max(1, Math.round((Math.sqrt(4 * sigma ** 2 + 1) - 1) / 2))
  const mean = (from: Float32Array, to: Float32Array) => {
    const last = from.length - 1
    const at = (i: number) => from[i < 0 ? 0 : Math.min(i, last)] ?? 0
    let sum = 0
    for (let i = -reach; i <= reach; i++) sum += at(i)
    for (let i = 0; i <= last; i++) {
      to[i] = sum / (2 * reach + 1)
      sum += at(i + reach + 1) - at(i - reach)
    }
  }
  return (line, spare) => {
    mean(line, spare)
    mean(spare, line)
    mean(line, spare)
    return spare
  }
}

/** Halves, by light: each was made of the one before. */
const halves = new WeakMap<Light, Light>()

/** A picture with as many pixels fewer as can be left out: halved while twice as many as `perPixel` remain. */
export function shrunk(light: Light, perPixel: number): Light {
  if (perPixel < 1.5) return light
  const half = halves.get(light) ?? halved(light)
  halves.set(light, half)
  return shrunk(half, perPixel / 2)
}

function halved({ width, height, values }: Light): Light {
  const [columns, rows] = [Math.ceil(width / 2), Math.ceil(height / 2)]
  const out = new Float32Array(columns * rows)
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      const [left, top] = [2 * x, 2 * y]
      const [right, below] = [Math.min(width - 1, left + 1), Math.min(height - 1, top + 1)]
      const upper = (values[top * width + left] ?? 0) + (values[top * width + right] ?? 0)
      const lower = (values[below * width + left] ?? 0) + (values[below * width + right] ?? 0)
      out[y * columns + x] = (upper + lower) / 4
    }
  return { width: columns, height: rows, values: out }
}
