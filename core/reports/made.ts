import { z } from 'zod'
import type { DrawnLook } from './look.ts'
import type { RichText } from '../fields/index.ts'
import { dimension } from '../dimensions/index.ts'
import { answer, heldAgainst, MEASURE_NAMES, timeMark } from '../results/index.ts'
import type { DrawnAs } from './report.ts'

/** A question with the answer it had when the report was made. */
export const madeQuestion = z.object({
  kind: z.literal('question'),
  key: z.string(),
  title: z.string(),
  /** Whose figures, in words, where that is not all that the report is of. */
  of: z.string(),
  zone: z.string(),
  from: z.string(),
  to: z.string(),
  what: z.enum(MEASURE_NAMES),
  by: z.array(dimension),
  /** What the figures are narrowed to, a text for each dimension. */
  narrowed: z.array(z.string()),
  /** What they are held against is called so; null for nothing. */
  against: z.string().nullable(),
  before: heldAgainst.nullable(),
  /** All that is asked for, in one row. */
  total: answer.shape.total,
  answer,
  /** What may explain the figures of its days, where they are by time. */
  marks: z.array(timeMark),
  /** What the days were expected to bring, where that is known. */
  expected: z.array(z.object({ key: z.string(), expected: z.number(), low: z.number(), high: z.number() })),
  /** Scans before this moment are folded and have no rows; null where all have. */
  rowsSince: z.int().nullable(),
})

/** The answer to a question, with how it is shown. */
export interface MadeQuestion extends z.infer<typeof madeQuestion> {
  /** Keys of the first dimension that everything is narrowed to: the others stand back. */
  readonly chosen: readonly string[]
  readonly drawnAs: DrawnAs
  readonly hasPatterns: boolean
  readonly rows: number
  /** Where the piece hangs that it is of, for rings of distance. */
  readonly spot: { readonly latitude: number; readonly longitude: number } | null
}

/** A question that could not be answered, and why. */
export interface FailedQuestion {
  readonly kind: 'failed'
  readonly key: string
  readonly title: string
  readonly sentence: string
}

export interface MadeWords {
  readonly kind: 'words'
  readonly key: string
  readonly text: RichText
}
export type MadeSection = MadeQuestion | FailedQuestion | MadeWords

/** A report with all its answers: whatever it is handed on as is drawn of this alone. */
export interface MadeReport {
  readonly name: string
  /** The client, or the workspace. */
  readonly owner: string
  /** The campaign it is of; empty where it is of more. */
  readonly campaign: string
  readonly zone: string
  /** UTC ms. */
  readonly madeAt: number
  readonly currency: string
  readonly look: DrawnLook
  readonly sections: readonly MadeSection[]
}

/** A report as data: the same answers as everywhere else, in the shapes of the API. */
export const reportData = z.object({
  name: z.string(),
  owner: z.string(),
  campaign: z.string(),
  zone: z.string(),
  madeAt: z.int(),
  currency: z.string(),
  questions: z.array(madeQuestion),
  failed: z.array(z.object({ title: z.string(), sentence: z.string() })),
})
export type ReportData = z.infer<typeof reportData>

export const questionsIn = ({ sections }: Pick<MadeReport, 'sections'>): MadeQuestion[] =>
  sections.filter((each) => each.kind === 'question')
export const failedIn = ({ sections }: Pick<MadeReport, 'sections'>): FailedQuestion[] =>
  sections.filter((each) => each.kind === 'failed')

/** What a made report says, without how it is shown. */
export function dataOf(made: MadeReport): ReportData {
  // What is not its own part of a question, such as how it is drawn, is left out by the shape.
  return reportData.parse({
    ...made,
    questions: questionsIn(made),
    failed: failedIn(made),
  })
}
