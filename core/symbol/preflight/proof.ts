import { gradeArtwork, GRADES, moduleReflectances, type ArtworkGrades, type Grade } from '../artwork.ts'
import { sceneColours, type Pixels } from '../colourPixels.ts'
import { MODULE_MM_MIN } from '../density.ts'
import type { QrSymbol } from '../encode.ts'
import type { Look } from '../look.ts'
import { onPicture, type Placement } from '../placement.ts'
import type { LookParts } from '../lookParts.ts'
import { styledScene } from '../styled.ts'
import { symbolAt } from '../surround.ts'
import type { Subject } from './camera.ts'
import { CONDITIONS, type Condition, type ConditionName } from './conditions.ts'
import { lightOf } from './light.ts'
import { findLimits, type Limit } from './limits.ts'
import type { Decoder } from './read.ts'

/** What is proofed: a symbol in a look, at a size, and what it is printed for. */
export interface Piece {
  readonly symbol: QrSymbol
  readonly look: Look
  /** Printed side in millimetres, quiet zone included. */
  readonly mm: number
  /** The short link as people type it, for looks that show it. */
  readonly link: string
  /** Where it lies on a picture; null where it stands alone. */
  readonly placement?: Placement | null
  /** From where people will look at it, in metres; null where nobody has said. */
  readonly viewingM: number | null
}

/** What proofing needs of the world around it. */
export interface ProofParts extends LookParts {
  readonly pictures: ReadonlyMap<string, Pixels>
  /** Decoders that share nothing with one another; what one of them cannot read is not read. */
  readonly decoders: readonly Decoder[]
}

export type Readiness = 'ready' | 'look-again' | 'will-fail'

/** What was measured of a piece. */
export interface Proof {
  readonly grades: ArtworkGrades
  readonly limits: readonly Limit[]
  readonly readiness: Readiness
  /** Why it is not ready, the gravest first; empty where it is. */
  readonly reasons: readonly Reason[]
}

/** What speaks against a piece. */
export type Reason =
  | { readonly code: 'unread' }
  | {
      readonly code: 'no-correction'
      readonly block: number
      readonly lost: number
      readonly correctable: number
    }
  | {
      readonly code: 'low-grade'
      readonly grade: Grade
      readonly measure: keyof Omit<ArtworkGrades, 'overall' | 'blocks'>
    }
  | { readonly code: 'too-far'; readonly readsM: number; readonly viewingM: number }
  | { readonly code: 'narrow-modules'; readonly moduleMm: number }
  | { readonly code: 'touchy'; readonly condition: ConditionName; readonly value: number }

/** Pixels a module that a look is measured at: more than a camera has, and few enough to be quick. */
const DRAWN_PX = 6
/** Paper is never quite white: what a ground that is none shows. Common practice, no published source. */
const PAPER = 0.85
const TABLE = 0.6

/** Of what a reader in ordinary use asks, this much it must stand. Common practice, no published source. */
const ORDINARY: Readonly<Partial<Record<ConditionName, number>>> = {
  tilt: 35,
  turn: 45,
  dim: 0.3,
  'ink-spread': 0.1,
  'ink-loss': 0.1,
}
/** From this grade down somebody should look at it again. */
const DOUBTFUL: readonly Grade[] = ['D', 'F']

/** Draws a piece as it will be photographed. */
export function subjectOf(
  { symbol, look, mm, link, placement }: Piece,
  parts: ProofParts,
): { subject: Subject; pixels: Pixels } {
  const alone = styledScene(symbol, look, mm, '', link, parts)
  const size = placement ? parts.pictureSize(placement.file) : null
  const scene = placement && size ? onPicture(alone, placement, size) : alone
  const pixels = sceneColours(scene, DRAWN_PX, parts.pictures)
  const subject = {
    artwork: lightOf(pixels, PAPER),
    widthMm: scene.width * scene.unitMm,
    moduleMm: scene.unitMm,
    around: TABLE,
  }
  return { subject, pixels }
}

/** Grades the artwork of a piece; nothing is photographed. */
export function gradesOf(
  piece: Piece,
  parts: ProofParts,
  { pixels } = subjectOf(piece, parts),
): ArtworkGrades {
  const { symbol, look } = piece
  const at = symbolAt(symbol, look, piece.link, parts)
  const grid = { x: at.x * DRAWN_PX, y: at.y * DRAWN_PX, module: DRAWN_PX, quiet: look.quietZone }
  return gradeArtwork(symbol, moduleReflectances(pixels, symbol.side, grid, PAPER), look.quietZone)
}

/**
 * Proofs a piece: grades its artwork, finds how much of each condition it stands, and says whether it is ready.
 * The same piece always gets the same proof.
 */
export async function proof(
  piece: Piece,
  parts: ProofParts,
  conditions: readonly Condition[] = CONDITIONS,
): Promise<Proof> {
  const drawn = subjectOf(piece, parts)
  const grades = gradesOf(piece, parts, drawn)
  const limits = await findLimits(drawn.subject, piece.symbol.text, parts.decoders, conditions)
  const reasons = reasonsOf(piece, drawn.subject, grades, limits)
  return { grades, limits, readiness: readinessOf(reasons), reasons }
}

const GRAVE: readonly Reason['code'][] = ['unread', 'no-correction', 'too-far']

function readinessOf(reasons: readonly Reason[]): Readiness {
  if (reasons.some(({ code }) => GRAVE.includes(code))) return 'will-fail'
  return reasons.length > 0 ? 'look-again' : 'ready'
}

function reasonsOf(
  { viewingM }: Piece,
  { moduleMm }: Subject,
  grades: ArtworkGrades,
  limits: readonly Limit[],
): Reason[] {
  const reasons: Reason[] = []
  if (limits.some(({ value }) => value === null)) reasons.push({ code: 'unread' })
  grades.blocks.forEach(({ lost, correctable }, block) => {
    if (lost > correctable) reasons.push({ code: 'no-correction', block: block + 1, lost, correctable })
  })
  const far = limits.find(({ name, isEnd }) => name === 'far' && !isEnd)?.value ?? null
  if (viewingM !== null && far !== null && far / 1000 < viewingM)
    reasons.push({ code: 'too-far', readsM: far / 1000, viewingM })
  const measures = ['contrast', 'modulation', 'fixedPattern', 'axial', 'correction', 'decode'] as const
  const worst = Math.max(...measures.map((measure) => GRADES.indexOf(grades[measure].grade)))
  for (const measure of measures)
    if (DOUBTFUL.includes(grades[measure].grade) && GRADES.indexOf(grades[measure].grade) === worst)
      reasons.push({ code: 'low-grade', grade: grades[measure].grade, measure })
  if (moduleMm < MODULE_MM_MIN) reasons.push({ code: 'narrow-modules', moduleMm })
  for (const { name, value, isEnd } of limits) {
    const least = ORDINARY[name]
    if (least === undefined || value === null || isEnd) continue
    // Of light the less the better; of everything else the more.
    if (name === 'dim' ? value > least : value < least)
      reasons.push({ code: 'touchy', condition: name, value })
  }
  return reasons
}
