import { CAMERA, FOCAL_PX, GOOD_VIEW, type Subject, type View } from './camera.ts'
import { withInkSpread, type Light } from './light.ts'
import { seededNumbers } from './seeded.ts'

/** What a symbol is held against, each from harmless to hopeless. */
export const CONDITION_NAMES = [
  'near',
  'far',
  'tilt',
  'turn',
  'defocus',
  'motion',
  'dim',
  'uneven',
  'glare',
  'ink-spread',
  'ink-loss',
  'bend',
  'torn',
  'scratches',
] as const
export type ConditionName = (typeof CONDITION_NAMES)[number]

/** One way in which reading becomes harder. */
export interface Condition {
  readonly name: ConditionName
  /** The value in good conditions, and the one where nothing is looked for any more. */
  readonly good: (subject: Subject) => number
  readonly worst: (subject: Subject) => number
  /** Whether values lie evenly by their ratios, as distances do, instead of by their differences. */
  readonly byRatio?: boolean
  /** Whether most symbols stand the worst of it, so that it is tried before anything is halved. */
  readonly isMostlyStood?: boolean
  readonly view?: (value: number, subject: Subject) => Partial<View>
  readonly spoil?: (artwork: Light, value: number, subject: Subject) => Light
}

/** Pixels a module that every reader is content with, and fewer than any reads. */
const CONTENT_PX = 4
const FEWEST_PX = 0.8

/** The distance in millimetres at which a module takes so many pixels. */
const distanceFor = ({ moduleMm }: Subject, pixels: number) => (moduleMm * FOCAL_PX) / pixels

/** From where a symbol is looked at in good conditions: as near as is comfortable, and whole in the picture. */
export function goodDistance(subject: Subject): number {
  return Math.max(distanceFor(subject, CONTENT_PX), nearest(subject) * 1.1)
}

/** Nearer than this a lens is out of focus, or the symbol does not fit into the picture. */
function nearest({ artwork, widthMm }: Subject): number {
  const heightMm = (widthMm * artwork.height) / artwork.width
  const fits = (Math.max(widthMm, heightMm) * FOCAL_PX) / CAMERA.heightPx
  return Math.max(CAMERA.nearestMm, fits)
}

const DEEPEST_TILT = 80
/** Turned by so much, the grid of a symbol and that of a camera differ most. */
const ASLANT = 45
const TEAR_MAX = 0.6
const SCRATCHES_MAX = 40
/** Modules: ink that runs by more closes every gap. */
const INK_MAX = 0.5

export const CONDITIONS: readonly Condition[] = [
  {
    name: 'near',
    good: goodDistance,
    worst: nearest,
    byRatio: true,
    isMostlyStood: true,
    view: (distanceMm) => ({ distanceMm }),
  },
  {
    name: 'far',
    good: goodDistance,
    worst: (subject) => Math.max(distanceFor(subject, FEWEST_PX), goodDistance(subject) * 1.2),
    byRatio: true,
    view: (distanceMm) => ({ distanceMm }),
  },
  { name: 'tilt', good: () => 0, worst: () => DEEPEST_TILT, view: (tiltDeg) => ({ tiltDeg, tiltAt: 20 }) },
  { name: 'turn', good: () => 0, worst: () => ASLANT, isMostlyStood: true, view: (turnDeg) => ({ turnDeg }) },
  { name: 'defocus', good: () => 0, worst: () => 1.5, view: (defocus) => ({ defocus }) },
  { name: 'motion', good: () => 0, worst: () => 2, view: (motion) => ({ motion }) },
  { name: 'dim', good: () => 1, worst: () => 0.005, byRatio: true, view: (light) => ({ light }) },
  { name: 'uneven', good: () => 0, worst: () => 1, view: (uneven) => ({ uneven }) },
  { name: 'glare', good: () => 0, worst: () => 3, view: (glare) => ({ glare }) },
  {
    name: 'ink-spread',
    good: () => 0,
    worst: () => INK_MAX,
    spoil: (artwork, modules, subject) => withInkSpread(artwork, modules * pixelsAModule(artwork, subject)),
  },
  {
    name: 'ink-loss',
    good: () => 0,
    worst: () => INK_MAX,
    spoil: (artwork, modules, subject) => withInkSpread(artwork, -modules * pixelsAModule(artwork, subject)),
  },
  {
    name: 'bend',
    // From a mast as thick as three symbols are wide to one that hides half of it.
    good: ({ widthMm }) => widthMm * 3,
    worst: ({ widthMm }) => widthMm / 3,
    byRatio: true,
    view: (bendMm) => ({ bendMm }),
  },
  { name: 'torn', good: () => 0, worst: () => TEAR_MAX, spoil: torn },
  { name: 'scratches', good: () => 0, worst: () => SCRATCHES_MAX, spoil: scratched },
]

const pixelsAModule = ({ width }: Light, { widthMm, moduleMm }: Subject) => (width / widthMm) * moduleMm

/** The lower right corner gone: the one that no finder pattern stands in. */
function torn(artwork: Light, share: number, { around }: Subject): Light {
  const { width, height } = artwork
  const values = artwork.values.slice()
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      // The tear runs aslant: so far from the corner along both sides together.
      if ((width - x) / width + (height - y) / height < share) values[y * width + x] = around
  return { width, height, values }
}

const SCRATCH_SEED = 4711

/** Straight scratches down to the paper, half a module wide; more of them are those there were and others. */
function scratched(artwork: Light, count: number, subject: Subject): Light {
  const { width, height } = artwork
  const values = artwork.values.slice()
  const half = pixelsAModule(artwork, subject) / 4
  const next = seededNumbers(SCRATCH_SEED)
  for (let i = 0; i < Math.round(count); i++) {
    const [fromX, fromY, angle, length] = [
      next() * width,
      next() * height,
      next() * Math.PI,
      next() * width * 0.5,
    ]
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)]
    const [toX, toY] = [fromX + dx * length, fromY + dy * length]
    for (let y = low(fromY, toY, half); y <= high(fromY, toY, half, height); y++)
      for (let x = low(fromX, toX, half); x <= high(fromX, toX, half, width); x++) {
        const along = (x - fromX) * dx + (y - fromY) * dy
        const off = (x - fromX) * dy - (y - fromY) * dx
        if (along >= 0 && along <= length && Math.abs(off) <= half) values[y * width + x] = 1
      }
  }
  return { width, height, values }
}

const low = (from: number, to: number, about: number) => Math.max(0, Math.floor(Math.min(from, to) - about))
const high = (from: number, to: number, about: number, end: number) =>
  Math.min(end - 1, Math.ceil(Math.max(from, to) + about))

/** A subject spoilt by a condition, and how it is then looked at. */
export function under(
  condition: Condition,
  value: number,
  subject: Subject,
): { subject: Subject; view: View } {
  const spoilt = condition.spoil
    ? { ...subject, artwork: condition.spoil(subject.artwork, value, subject) }
    : subject
  const view = { ...GOOD_VIEW, distanceMm: goodDistance(subject), ...condition.view?.(value, subject) }
  return { subject: spoilt, view }
}
