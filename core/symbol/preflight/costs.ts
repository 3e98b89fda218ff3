import { GRADES } from '../artwork.ts'
import { PLAIN_LOOK, type Look } from '../look.ts'
import { CONDITIONS, type ConditionName } from './conditions.ts'
import { proof, type Piece, type Proof, type ProofParts } from './proof.ts'

/** Something chosen in a look that can be undone by itself. */
export const CHOICES = ['logo', 'ink', 'ground', 'modules', 'finder', 'alignment'] as const
export type Choice = (typeof CHOICES)[number]

/** What a choice costs: how much better the piece would be without it. */
export interface ChoiceCost {
  readonly choice: Choice
  /** Grades of the artwork. */
  readonly grades: number
  readonly metres: number
  readonly tiltDeg: number
}

/** Measured for each choice: the conditions that people feel most. */
const FELT: readonly ConditionName[] = ['far', 'tilt']

/** The look with one choice undone; null where it is not chosen. */
export function without(look: Look, choice: Choice): Look | null {
  const undone = { ...look, [choice]: PLAIN_LOOK[choice] }
  return JSON.stringify(undone) === JSON.stringify(look) ? null : undone
}

/**
 * Proofs a piece again with one choice undone at a time.
 *
 * @param whole the proof of the piece as it is
 * @returns what each choice costs, the dearest first; choices that cost nothing are left out
 */
export async function choiceCosts(piece: Piece, parts: ProofParts, whole: Proof): Promise<ChoiceCost[]> {
  const costs: ChoiceCost[] = []
  const conditions = CONDITIONS.filter(({ name }) => FELT.includes(name))
  for (const choice of CHOICES) {
    const look = without(piece.look, choice)
    if (!look) continue
    const other = await proof({ ...piece, look }, parts, conditions)
    const gain = (name: ConditionName) =>
      Math.max(0, (valueOf(other, name) ?? 0) - (valueOf(whole, name) ?? 0))
    const cost = {
      choice,
      grades: Math.max(0, rank(whole) - rank(other)),
      metres: gain('far') / 1000,
      tiltDeg: gain('tilt'),
    }
    if (cost.grades > 0 || cost.metres > 0 || cost.tiltDeg > 0) costs.push(cost)
  }
  return costs.sort((a, b) => b.grades - a.grades || b.metres - a.metres || b.tiltDeg - a.tiltDeg)
}

const valueOf = ({ limits }: Proof, name: ConditionName) =>
  limits.find((each) => each.name === name)?.value ?? null
const rank = ({ grades }: Proof) => GRADES.indexOf(grades.overall)
