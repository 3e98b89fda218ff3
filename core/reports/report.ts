import { z } from 'zod'
import { line, requiredLine } from '../api/index.ts'
import { CHART_KINDS } from '../charts/index.ts'
import { richText } from '../fields/index.ts'
import { DEFAULT_PRESET, period, savedValue } from '../results/index.ts'

export const REPORT_BLOCKS_MAX = 40
/** Each question reads all of its days anew: more of them nobody reads. */
export const REPORT_QUESTIONS_MAX = 24
/** Rows of a table that a page or a PDF shows; a sheet has all. */
export const REPORT_ROWS_MAX = 100

const blockKey = z
  .string()
  .regex(/^[0-9a-z]{1,24}$/, 'A block has a key of up to 24 small letters and digits.')

/** How the answer to a question is drawn: in the usual way, in another, or not at all. */
export const DRAWN_AS = ['usual', ...CHART_KINDS, 'none'] as const
export type DrawnAs = (typeof DRAWN_AS)[number]

/** A question to the figures, and how its answer is shown. */
export const reportQuestion = z.strictObject({
  kind: z.literal('question'),
  key: blockKey,
  /** Empty for what the question is called by itself. */
  title: line('the title', 120).default(''),
  value: savedValue,
  /** Whether it is asked for its own days, and not for those of the report. */
  hasOwnPeriod: z.boolean().default(false),
  drawnAs: z.enum(DRAWN_AS).default('usual'),
  hasPatterns: z.boolean().default(false),
  /** So many rows of its table are shown; 0 for no table. */
  rows: z
    .int()
    .min(0)
    .max(REPORT_ROWS_MAX, `Show at most ${String(REPORT_ROWS_MAX)} rows; the sheet has all.`)
    .default(10),
})
export type ReportQuestion = z.infer<typeof reportQuestion>

/** What somebody says between the questions. */
export const reportWords = z.strictObject({ kind: z.literal('words'), key: blockKey, text: richText })
export type ReportWords = z.infer<typeof reportWords>

const block = z.discriminatedUnion('kind', [reportQuestion, reportWords])
export type ReportBlock = z.infer<typeof block>

/** The questions of a report, in its order. */
export const questionsOf = ({ blocks }: { readonly blocks: readonly ReportBlock[] }): ReportQuestion[] =>
  blocks.filter((each) => each.kind === 'question')

/** A saved set of questions to the figures, with words between. */
export const reportContent = z
  .strictObject({
    name: requiredLine('the report a name', 120),
    /** Whose it is; both null for the whole workspace. */
    clientId: z.int().positive().nullable().default(null),
    campaignId: z.int().positive().nullable().default(null),
    /** The house style whose logo and colour it has; null for the plain look. */
    styleId: z.int().positive().nullable().default(null),
    period: period.default({ preset: DEFAULT_PRESET }),
    blocks: z
      .array(block)
      .max(REPORT_BLOCKS_MAX, `A report has at most ${String(REPORT_BLOCKS_MAX)} parts.`)
      .default([]),
  })
  .refine(({ clientId, campaignId }) => clientId === null || campaignId === null, {
    message: 'A report is of a client or of a campaign.',
    path: ['campaignId'],
  })
  .refine(({ blocks }) => new Set(blocks.map(({ key }) => key)).size === blocks.length, {
    message: 'Two parts of the report have the same key.',
    path: ['blocks'],
  })
  .refine((content) => questionsOf(content).length <= REPORT_QUESTIONS_MAX, {
    message: `A report asks at most ${String(REPORT_QUESTIONS_MAX)} questions. Make a second report of the others.`,
    path: ['blocks'],
  })
export type ReportContent = z.infer<typeof reportContent>

/**
 * A report as it was stored. What an older version of it had not is as usual; a part from a time of other measures or
 * dimensions is left out, and the rest of the report with it is not lost.
 *
 * @throws ZodError where even its name cannot be read
 */
export function readStoredReport(stored: unknown): ReportContent {
  const whole = reportContent.safeParse(stored)
  if (whole.success) return whole.data
  const { blocks = [], ...rest } = stored as { readonly blocks?: readonly unknown[] }
  return reportContent.parse({ ...rest, blocks: blocks.filter((each) => block.safeParse(each).success) })
}

/** What a report is handed on as. */
export const REPORT_FILES = ['pdf', 'xlsx', 'csv', 'json'] as const
export type ReportFile = (typeof REPORT_FILES)[number]
export const REPORT_FILE_NAMES: Readonly<Record<ReportFile, string>> = {
  pdf: 'PDF',
  xlsx: 'Sheet (XLSX)',
  csv: 'CSV, one file a question (ZIP)',
  json: 'JSON',
}
