import type {
  ArtworkGrades,
  ChoiceCost,
  Fix,
  Level,
  Look,
  Placement,
  Proof,
  Readiness,
} from '@flimbo/core/symbol'

/** A piece that is to be measured. */
export interface ProofOrder {
  readonly id: number
  readonly text: string
  readonly level: Level
  readonly look: Look
  readonly mm: number
  readonly link: string
  readonly placement: Placement | null
  readonly viewingM: number | null
  /** How large the pictures in the look are, in pixels. */
  readonly sizes: Readonly<Record<string, { readonly width: number; readonly height: number }>>
}

/** A fix, and what a piece would be with it. */
export interface MeasuredFix extends Fix {
  readonly readiness: Readiness
}

/** What is told while a piece is measured: the quickest first. */
export type ProofAnswer = { readonly id: number } & (
  | { readonly kind: 'grades'; readonly grades: ArtworkGrades }
  | { readonly kind: 'proof'; readonly proof: Proof }
  | { readonly kind: 'fixes'; readonly fixes: readonly MeasuredFix[] }
  | { readonly kind: 'costs'; readonly costs: readonly ChoiceCost[] }
  | { readonly kind: 'fault'; readonly sentence: string }
)

/** What is known of a piece by now; what is of an earlier draft is stale. */
export interface Measured {
  readonly grades: ArtworkGrades | null
  readonly proof: Proof | null
  readonly fixes: readonly MeasuredFix[]
  readonly costs: readonly ChoiceCost[] | null
  readonly fault: string | null
  /** Whether what is shown is still of the draft before. */
  readonly isStale: boolean
}

export const NOTHING_MEASURED: Measured = {
  grades: null,
  proof: null,
  fixes: [],
  costs: null,
  fault: null,
  isStale: true,
}

/** What is known once an answer came. What was known of an earlier draft stays until it is known anew. */
export function withAnswer(measured: Measured, answer: ProofAnswer): Measured {
  switch (answer.kind) {
    case 'grades':
      return { ...measured, grades: answer.grades, fault: null }
    case 'proof':
      return { ...measured, proof: answer.proof, fixes: [], costs: null, isStale: false }
    case 'fixes':
      return { ...measured, fixes: answer.fixes }
    case 'costs':
      return { ...measured, costs: answer.costs }
    case 'fault':
      return { ...NOTHING_MEASURED, fault: answer.sentence, isStale: false }
  }
}
