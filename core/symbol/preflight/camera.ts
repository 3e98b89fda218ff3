import { blurred, shrunk, type Light } from './light.ts'
import { seededNoise, seededNumbers } from './seeded.ts'

/**
 * The camera that is thought of: a preview frame 1,280 pixels wide over 66 degrees, neither the best nor the worst of
 * phones. Common practice, no published source.
 */
export const CAMERA = { widthPx: 1280, heightPx: 960, fieldDeg: 66, nearestMm: 60 } as const

/** Pixels that a millimetre takes at a distance of a millimetre. */
export const FOCAL_PX = CAMERA.widthPx / 2 / Math.tan((CAMERA.fieldDeg * Math.PI) / 360)

/** How a symbol is looked at. Everything but the distance is 0, or as is usual, in good conditions. */
export interface View {
  readonly distanceMm: number
  /** Degrees the surface is tilted away, and in which direction that is; degrees it is turned. */
  readonly tiltDeg: number
  readonly tiltAt: number
  readonly turnDeg: number
  /** Standard deviations of the blur in modules: out of focus, and along the motion of the hand. */
  readonly defocus: number
  readonly motion: number
  /** Light there is: 1 in a lit room. */
  readonly light: number
  /** How much darker it is at one side than at the other: 0 to 1. */
  readonly uneven: number
  /** Strength of a lamp’s reflection: 1 throws back as much as white paper. */
  readonly glare: number
  /** Radius of the cup or pole that it is wrapped round, in millimetres; infinite on a flat wall. */
  readonly bendMm: number
}

export const GOOD_VIEW: Omit<View, 'distanceMm'> = {
  tiltDeg: 0,
  tiltAt: 0,
  turnDeg: 0,
  defocus: 0,
  motion: 0,
  light: 1,
  uneven: 0,
  glare: 0,
  bendMm: Infinity,
}

/** What is photographed: the light an artwork throws back, and how large it is. */
export interface Subject {
  readonly artwork: Light
  readonly widthMm: number
  /** Width of a module in millimetres. */
  readonly moduleMm: number
  /** What lies about it. */
  readonly around: number
}

/** The blur of any lens and of the sensor's colour filter, in pixels. */
const LENS_PX = 0.6
/** Noise of the sensor in a lit room: of the light itself at full white, and of reading it out. */
const SHOT = 0.012
const READ = 0.004
/** Pixels a module that are more than enough. */
const ENOUGH_PX = 8
/** How much about the symbol is seen as well, as a share of its width. */
const MARGIN = 0.25

/**
 * Photographs a subject: its picture in gray, as a phone's reader is handed it. The part of the frame that shows it
 * is made alone; the rest would be looked through in vain.
 *
 * @param seed makes the noise, and where exactly the hand is: the same for the same
 * @returns gray values as a camera encodes them, 0 to 255, or null where it does not fit into the frame
 */
export function photograph(
  subject: Subject,
  view: View,
  seed: number,
): { width: number; height: number; gray: Uint8ClampedArray } | null {
  const { artwork, widthMm, moduleMm, around } = subject
  const heightMm = (widthMm * artwork.height) / artwork.width
  // Readers look at half the pixels where there are more than enough.
  const focalPx = (moduleMm * FOCAL_PX) / view.distanceMm > ENOUGH_PX ? FOCAL_PX / 2 : FOCAL_PX
  const perMm = focalPx / view.distanceMm
  // As much as the symbol takes, turned as it is, and a little about it.
  const [cosTurn, sinTurn] = [Math.cos(radians(view.turnDeg)), Math.sin(radians(view.turnDeg))].map(
    Math.abs,
  ) as [number, number]
  const seenWide = (widthMm * cosTurn + heightMm * sinTurn) * perMm
  const seenHigh = (widthMm * sinTurn + heightMm * cosTurn) * perMm
  const [width, height] = [seenWide, seenHigh].map((side) => Math.ceil(side * (1 + MARGIN))) as [
    number,
    number,
  ]
  if (Math.max(seenWide, seenHigh) * (FOCAL_PX / focalPx) > CAMERA.heightPx) return null
  const hand = seededNumbers(seed)
  const [shiftX, shiftY] = [hand() - 0.5, hand() - 0.5]
  // Seen from afar many of its points lie under one pixel: the artwork is made smaller first.
  const seen = shrunk(artwork, artwork.width / (widthMm * perMm))
  const values = projected(seen, { width, height }, view, {
    middleX: shiftX + width / 2,
    middleY: shiftY + height / 2,
    focalPx,
    perMm: seen.width / widthMm,
    around,
  })
  lit(values, width, height, view, Math.hypot(seenWide, seenHigh) / 2)
  const modulePx = moduleMm * perMm
  const focus = Math.hypot(LENS_PX, view.defocus * modulePx)
  const sharp = blurred({ width, height, values }, Math.hypot(focus, view.motion * modulePx), focus)
  return { width, height, gray: exposed(sharp.values, view.light, seed ^ 0x5eed) }
}

interface Aim {
  /** The point of the picture that the middle of the artwork is seen at. */
  readonly middleX: number
  readonly middleY: number
  readonly focalPx: number
  /** Pixels of the artwork a millimetre. */
  readonly perMm: number
  readonly around: number
}

/** The light that falls on each pixel: what its ray meets on the artwork, tilted, turned and bent as it is. */
function projected(
  artwork: Light,
  { width, height }: { readonly width: number; readonly height: number },
  view: View,
  { middleX, middleY, focalPx, perMm, around }: Aim,
): Float32Array {
  const { distanceMm: d, bendMm } = view
  const [tilt, at, turn] = [radians(view.tiltDeg), radians(view.tiltAt), radians(view.turnDeg)]
  const [cosTilt, sinTilt] = [Math.cos(tilt), Math.sin(tilt)]
  const [cosAt, sinAt] = [Math.cos(at), Math.sin(at)]
  // First the tilt's own direction is turned back, then the symbol itself.
  const [cosBack, sinBack] = [Math.cos(at - turn), Math.sin(at - turn)]
  const { width: columns, height: rows, values: lights } = artwork
  const values = new Float32Array(width * height)
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const rayX = (column + 0.5 - middleX) / focalPx
      const rayY = (row + 0.5 - middleY) / focalPx
      // Turned so that the surface is tilted about the upright axis.
      const across = rayX * cosAt + rayY * sinAt
      const facing = cosTilt - across * sinTilt
      let u = (across * d) / facing
      const v = (rayY * cosAt - rayX * sinAt) * (d + u * sinTilt)
      // Round a cup the surface falls back: what is seen at u lies further round.
      if (bendMm !== Infinity) u = Math.abs(u) < bendMm ? bendMm * Math.asin(u / bendMm) : Infinity
      const x = (u * cosBack - v * sinBack) * perMm + columns / 2 - 0.5
      const y = (u * sinBack + v * cosBack) * perMm + rows / 2 - 0.5
      const i = row * width + column
      if (!(facing > 0.01 && x >= 0 && y >= 0 && x < columns - 1 && y < rows - 1)) {
        values[i] = around
        continue
      }
      // Between the four points about it.
      const left = Math.floor(x)
      const top = Math.floor(y)
      const [shareX, shareY] = [x - left, y - top]
      const first = top * columns + left
      const upper = (lights[first] ?? 0) * (1 - shareX) + (lights[first + 1] ?? 0) * shareX
      const lower =
        (lights[first + columns] ?? 0) * (1 - shareX) + (lights[first + columns + 1] ?? 0) * shareX
      values[i] = upper * (1 - shareY) + lower * shareY
    }
  return values
}

const radians = (degrees: number) => (degrees * Math.PI) / 180

/** Where a lamp is reflected, as shares of the half diagonal, and how wide its spot is. */
const LAMP = { x: 0.25, y: -0.2, width: 0.28 } as const

function lit(
  values: Float32Array,
  width: number,
  height: number,
  { uneven, glare }: View,
  radius: number,
): void {
  if (uneven === 0 && glare === 0) return
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const i = row * width + column
      const shade = 1 - uneven * (0.5 + (0.5 * (column - width / 2)) / radius)
      const [x, y] = [(column - width / 2) / radius - LAMP.x, (row - height / 2) / radius - LAMP.y]
      const spot = glare === 0 ? 0 : glare * Math.exp(-(x * x + y * y) / (2 * LAMP.width ** 2))
      values[i] = (values[i] ?? 0) * Math.max(0.02, shade) + spot
    }
}

/** Steps of the curve that pictures are kept in. */
const CURVE_STEPS = 4096
const CURVE = Uint8ClampedArray.from(
  { length: CURVE_STEPS + 1 },
  (_, i) => 255 * (i / CURVE_STEPS) ** (1 / 2.2),
)

/** As many numbers as noise needs: begun somewhere else for each picture, they look new. */
const NOISE = Float32Array.from({ length: 1 << 16 }, seededNoise(1))

/** What a sensor makes of light: noise, an exposure that makes the brightest just white, and the curve that pictures are kept in. */
function exposed(values: Float32Array, light: number, seed: number): Uint8ClampedArray {
  let brightest = 0
  for (const value of values) if (value > brightest) brightest = value
  const gain = (0.95 / Math.max(brightest, 1e-6)) * CURVE_STEPS
  const [shot, read] = [SHOT / Math.sqrt(light), READ / light]
  const gray = new Uint8ClampedArray(values.length)
  const from = Math.floor(seededNumbers(seed)() * NOISE.length)
  for (let i = 0; i < values.length; i++) {
    const value = values[i] ?? 0
    const noise = NOISE[(from + i) & (NOISE.length - 1)] ?? 0
    const seen = (value + (shot * Math.sqrt(value) + read) * noise) * gain
    gray[i] = CURVE[Math.max(0, Math.min(CURVE_STEPS, seen | 0))] ?? 0
  }
  return gray
}
