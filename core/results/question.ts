import { z } from 'zod'
import { hasAtMostOne, ONE_AT_MOST } from '../scans/index.ts'
import { calendarDay, daysBefore, daysBetween, shiftDay, shiftYear } from '../time/index.ts'
import { dimension, filters } from '../dimensions/index.ts'
import { MEASURE_NAMES } from './measures.ts'

/** Questions that can be asked at once, and what is the most of each of them. */
export const QUESTIONS_MAX = 24
export const ROWS_MAX = 2000
/** Of two dimensions at once, so many keys of each are shown, and so many cells in all. */
export const CROSSED_MAX = 400
export const CELLS_MAX = 20_000

/** What is asked, by nothing, one dimension, or two at once. */
export const question = z
  .strictObject({
    what: z.enum(MEASURE_NAMES).default('scans'),
    by: z.array(dimension).max(2, 'Two dimensions at once are the most.').default([]),
    filters: filters.default({}),
    /** So many rows, the largest by what is asked; all pieces of time are there, whatever it says. */
    top: z.int().min(1).max(ROWS_MAX).default(200),
  })
  .refine(({ by }) => by[0] === undefined || by[0] !== by[1], {
    message: 'Choose two different dimensions.',
    path: ['by'],
  })
export type Question = z.output<typeof question>

/** Whose figures are meant: those of one thing, or of all there is in the workspace. */
export const ofFields = {
  clientId: z.int().positive().optional(),
  campaignId: z.int().positive().optional(),
  routeId: z.int().positive().optional(),
  codeId: z.int().positive().optional(),
}

export const DAYS_IN_ORDER = { message: 'The last day lies before the first.', path: ['to'] }

/**
 * What figures are held against: nothing, as many days just before, the same days a year earlier, or another campaign,
 * on the same days or on those that are as long after its own first day.
 */
export const AGAINST = ['none', 'before', 'year', 'campaign', 'campaignFromStart'] as const
export type Against = (typeof AGAINST)[number]

/** Whether figures are held against those of another campaign. */
export const isOfOther = (against: Against): boolean =>
  against === 'campaign' || against === 'campaignFromStart'

interface Days {
  readonly from: string
  readonly to: string
}

/** The days that others are held against; null for nothing. @param starts the first days of the campaign and of the other */
export function daysAgainst(
  against: Against,
  { from, to }: Days,
  starts: { readonly own: string; readonly other: string } | null = null,
): Days | null {
  switch (against) {
    case 'none':
      return null
    case 'before':
      return daysBefore(from, to)
    case 'year':
      return { from: shiftYear(from, -1), to: shiftYear(to, -1) }
    case 'campaign':
      return { from, to }
    case 'campaignFromStart': {
      const later = starts ? daysBetween(starts.own, starts.other) - 1 : 0
      return { from: shiftDay(from, later), to: shiftDay(to, later) }
    }
  }
}

/** Questions of the same scope and days, both included. */
export const asked = z
  .strictObject({
    ...ofFields,
    from: calendarDay,
    to: calendarDay,
    against: z.enum(AGAINST).default('none'),
    /** The campaign that figures are held against, where they are. */
    otherCampaignId: z.int().positive().optional(),
    questions: z.array(question).min(1).max(QUESTIONS_MAX),
  })
  .refine(hasAtMostOne, ONE_AT_MOST)
  .refine(({ from, to }) => from <= to, DAYS_IN_ORDER)
  .refine(
    ({ against, campaignId, otherCampaignId }) =>
      !isOfOther(against) || (campaignId !== undefined && otherCampaignId !== undefined),
    { message: 'Choose the campaign that figures are held against.', path: ['otherCampaignId'] },
  )
export type Asked = z.output<typeof asked>

const counts = {
  scans: z.int(),
  uniques: z.int(),
  leads: z.int(),
  arrivals: z.int(),
  goals: z.int(),
  value: z.number(),
  cost: z.number().nullable(),
}
const figures = z.object(counts)

export const answerRow = z.object({
  /** One for each dimension; empty for what is not known. */
  keys: z.array(z.string()),
  ...counts,
  /** The same of the days they are held against; null where they are held against nothing. */
  before: figures.nullable(),
})
export type AnswerRow = z.infer<typeof answerRow>

export const answer = z.object({
  rows: z.array(answerRow),
  /** How many there would be. */
  rowsTotal: z.int(),
  /** All that the filters take, in the rows that are shown and those that are not. */
  total: answerRow.omit({ keys: true }),
  /** What keys are called that are numbers of things, by dimension. */
  names: z.partialRecord(dimension, z.record(z.string(), z.string())),
  /** Where cities lie: latitude and longitude in degrees. */
  spots: z.record(z.string(), z.tuple([z.number(), z.number()])),
  /**
   * Where the lane of each row leads by now, in words, as long as its piece leads nowhere else; empty where it is not asked
   * by lane or variant.
   */
  leads: z.array(z.string()),
  /** Scans of these days that are folded have no part in it: of sums nothing is known that two things have in common. */
  leavesOutFolded: z.boolean(),
})
export type Answer = z.infer<typeof answer>

/** The days that figures are held against, and the name of the campaign they are of, where it is another. */
export const heldAgainst = z.object({ from: z.string(), to: z.string(), campaign: z.string().nullable() })
export type HeldAgainst = z.infer<typeof heldAgainst>

export const answers = z.object({
  zone: z.string(),
  from: z.string(),
  to: z.string(),
  before: heldAgainst.nullable(),
  /** Scans before this moment are folded: they have no rows. Null where all have. */
  rowsSince: z.int().nullable(),
  answers: z.array(answer),
})
export type Answers = z.infer<typeof answers>
