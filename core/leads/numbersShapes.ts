import { z } from 'zod'

const interval = z.object({ value: z.number(), low: z.number(), high: z.number() })
/** How many gave an answer, of all who were asked and answered. */
const answerCount = z.object({
  /** What leads with this answer are found by. */
  key: z.string(),
  label: z.string(),
  count: z.int(),
  /** Of those who answered the question, with its 95 % interval. */
  share: interval,
})
export type AnswerCount = z.infer<typeof answerCount>

const head = {
  question: z.string(),
  title: z.string(),
  /** How many answered it. */
  answered: z.int(),
}
/** What leads answered to one question. */
const questionNumbers = z.discriminatedUnion('kind', [
  z.object({ ...head, kind: z.literal('counts'), rows: z.array(answerCount) }),
  /** By how many each was put first, and its mean place. */
  z.object({
    ...head,
    kind: z.literal('ranks'),
    rows: z.array(answerCount.extend({ meanPlace: z.number() })),
  }),
  z.object({
    ...head,
    kind: z.literal('values'),
    spread: z
      .object({
        count: z.int(),
        mean: z.number(),
        deviation: z.number().nullable(),
        median: z.number(),
        least: z.number(),
        most: z.number(),
      })
      .nullable(),
    rows: z.array(answerCount),
  }),
  z.object({ ...head, kind: z.literal('words'), rows: z.array(answerCount) }),
  /** What tells who somebody is, and files: nobody counts those. */
  z.object({ ...head, kind: z.literal('answered') }),
])
export type QuestionNumbers = z.infer<typeof questionNumbers>

/** What the numbers of questions, and rates, are told apart by. */
export const NUMBERS_BY = ['piece', 'country', 'city', 'device', 'month'] as const
export type NumbersBy = (typeof NUMBERS_BY)[number]

/** A form that somebody answered. */
export const answeredForm = z.object({
  pageId: z.int(),
  part: z.string(),
  /** Empty where the page is gone. */
  pageName: z.string(),
  answers: z.int(),
})
export type AnsweredForm = z.infer<typeof answeredForm>

export const leadNumbers = z.object({
  total: z.int(),
  questions: z.array(questionNumbers),
  /** The same by what was asked for, the most leads first; those with fewest are left out where there are many. */
  groups: z.array(
    z.object({ key: z.string(), name: z.string(), total: z.int(), questions: z.array(questionNumbers) }),
  ),
})
export type LeadNumbers = z.infer<typeof leadNumbers>
