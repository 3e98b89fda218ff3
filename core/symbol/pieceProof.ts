import { z } from 'zod'
import { GRADES } from './artwork.ts'
import type { Level } from './capacity.ts'
import { CONDITION_NAMES } from './preflight/index.ts'
import type { Placement } from './placement.ts'
import { releaseMark } from './released.ts'

/** How far a piece is: not measured as it is now, or what measuring it came to. */
export const PROOF_STATES = ['draft', 'ready', 'look-again', 'will-fail'] as const
export type ProofState = (typeof PROOF_STATES)[number]

const readiness = z.enum(['ready', 'look-again', 'will-fail'])
const grade = z.enum(GRADES)

/** What was measured of a piece, as far as it is kept. */
export const pieceProof = z.object({
  readiness,
  grade,
  /** What is to be said of it, the gravest first: why it is not ready, or how far it reads. */
  sentences: z.array(z.string()),
  limits: z.array(
    z.object({ name: z.enum(CONDITION_NAMES), value: z.number().nullable(), isEnd: z.boolean() }),
  ),
  at: z.int(),
})
export type PieceProof = z.infer<typeof pieceProof>

/** What of a piece is shown in lists: whether it will read, and why not. */
export const printState = z.object({
  state: z.enum(PROOF_STATES),
  grade: grade.nullable(),
  sentence: z.string(),
  /** Its newest release; null where it was never released. */
  release: releaseMark.nullable(),
})
export type PrintState = z.infer<typeof printState>

/** The edition of measuring: when what is measured changes, everything is measured anew. */
const EDITION = 1

/** All that a proof depends on; another one means that a piece is to be measured anew. */
export function proofKey(piece: {
  readonly text: string
  readonly link: string
  readonly level: Level
  readonly sizeMm: number
  readonly viewingM: number | null
  readonly placement: Placement | null
  readonly style: { readonly id: number; readonly version: number } | null
}): string {
  const { text, link, level, sizeMm, viewingM, placement, style } = piece
  return [
    EDITION,
    text,
    link,
    level,
    sizeMm,
    viewingM ?? '',
    placement ? JSON.stringify(placement) : '',
    style ? `${String(style.id)}.${String(style.version)}` : '',
  ].join(' ')
}

/** What a list says of a piece: of a proof only where it is one of the piece as it is. */
export function printStateOf(
  stored:
    | { readonly key: string; readonly proof: Pick<PieceProof, 'readiness' | 'grade' | 'sentences'> }
    | undefined,
  key: string,
): Omit<PrintState, 'release'> {
  if (stored?.key !== key) return { state: 'draft', grade: null, sentence: 'Not checked yet.' }
  const { readiness: state, grade: found, sentences } = stored.proof
  return { state, grade: found, sentence: sentences[0] ?? '' }
}
