import { z } from 'zod'
import { line } from '../api/index.ts'
import { rowKey } from '../fields/index.ts'
import { calendarDay } from '../time/index.ts'

const CHOICES_MAX = 100
const TESTS_MAX = 20
const TEXT_MAX = 100

/** What an answer to an earlier question must be. */
export const answerTest = z.discriminatedUnion('is', [
  /** One of some choices was chosen; of a yes/no question `yes` or `no`. */
  z.strictObject({ question: rowKey, is: z.literal('chosen'), of: z.array(rowKey).min(1).max(CHOICES_MAX) }),
  z.strictObject({ question: rowKey, is: z.literal('answered') }),
  z.strictObject({ question: rowKey, is: z.literal('empty') }),
  /** A number, a rating or a scale, the bound itself included. */
  z.strictObject({ question: rowKey, is: z.enum(['least', 'most']), than: z.number() }),
  /** A day, that day itself included. */
  z.strictObject({ question: rowKey, is: z.enum(['from', 'until']), day: calendarDay }),
  /** Words that stand in what was written, in whatever letters. */
  z.strictObject({
    question: rowKey,
    is: z.literal('says'),
    text: line('the words', TEXT_MAX),
  }),
])
export type AnswerTest = z.infer<typeof answerTest>

/** When a question or section is asked: always where there are no tests. */
export const branch = z.strictObject({
  match: z.enum(['all', 'any', 'none']),
  tests: z.array(answerTest).max(TESTS_MAX, `A branch has at most ${String(TESTS_MAX)} conditions.`),
})
export type Branch = z.infer<typeof branch>

export const ALWAYS: Branch = { match: 'all', tests: [] }
