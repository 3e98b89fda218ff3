import fc from 'fast-check'
import {
  newQuestion,
  otherName,
  rankName,
  valueName,
  type Answer,
  type AnswerReaders,
  type AnswerTest,
  type Question,
  type QuestionKind,
  type SentValues,
} from '../forms/index.ts'

const KINDS: readonly Exclude<QuestionKind, 'file' | 'hidden'>[] = [
  ...(['section', 'short', 'long', 'mail', 'phone', 'number', 'date', 'one', 'some', 'dropdown'] as const),
  ...(['yesno', 'rating', 'scale', 'ranking', 'consent'] as const),
]
const CHOICES = ['a', 'b', 'c'].map((key) => ({ key, label: { en: key.toUpperCase() } }))

/** What a condition may ask of an earlier question. */
function testOf(question: Question): fc.Arbitrary<AnswerTest> {
  const about = { question: question.id }
  const always = fc.constantFrom<AnswerTest>({ ...about, is: 'answered' }, { ...about, is: 'empty' })
  if ('choices' in question)
    return fc.oneof(
      always,
      fc
        .subarray(['a', 'b', 'c'], { minLength: 1 })
        .map((of): AnswerTest => ({ ...about, is: 'chosen', of })),
    )
  if (question.kind === 'yesno') return fc.constant({ ...about, is: 'chosen', of: ['yes'] })
  if (question.kind === 'scale' || question.kind === 'rating' || question.kind === 'number')
    return fc.record({
      ...mapped(about),
      is: fc.constantFrom('least', 'most'),
      than: fc.integer({ min: 0, max: 6 }),
    })
  if (question.kind === 'date')
    return fc.record({
      ...mapped(about),
      is: fc.constantFrom('from', 'until'),
      day: fc.constantFrom('2026-07-02', '2026-07-03', '2026-07-04'),
    })
  if (question.kind === 'short' || question.kind === 'long')
    return fc.oneof(
      always,
      fc.constantFrom('a', 'B', 'ab').map((text): AnswerTest => ({ ...about, is: 'says', text })),
    )
  return always
}
const mapped = (about: { question: string }) => ({ question: fc.constant(about.question) })

/** A form of any questions, with conditions on earlier ones. */
export const anyForm: fc.Arbitrary<Question[]> = fc
  .array(fc.record({ kind: fc.constantFrom(...KINDS), isRequired: fc.boolean() }), {
    minLength: 1,
    maxLength: 7,
  })
  .chain((kinds) => {
    const questions = kinds.map(({ kind, isRequired }, i): Question => {
      const fresh = { ...newQuestion(kind, `q${String(i)}`) } as Question
      if (fresh.kind === 'section') return fresh
      const required = { ...fresh, isRequired } as Question
      return 'choices' in required ? { ...required, choices: CHOICES } : required
    })
    return fc.tuple(
      ...questions.map((question, i) => {
        const earlier = questions.slice(0, i).filter(({ kind }) => kind !== 'section')
        if (earlier.length === 0) return fc.constant(question)
        const tests = fc.array(fc.constantFrom(...earlier).chain(testOf), { maxLength: 2 })
        return fc
          .tuple(fc.constantFrom('all', 'any', 'none'), tests)
          .map(([match, all]): Question => ({ ...question, branch: { match, tests: all } }))
      }),
    )
  })

/** How an answer is sent for a question. */
export function sentFor({ id, kind }: Question, answer: Answer): [name: string, values: string[]][] {
  if (typeof answer === 'boolean') return [[valueName(id), [answer ? 'yes' : 'no']]]
  if (typeof answer !== 'object') return [[valueName(id), [String(answer)]]]
  if (!('chosen' in answer)) return []
  if (kind === 'ranking') return answer.chosen.map((key, i) => [rankName(id, key), [String(i + 1)]])
  const values = [...answer.chosen, ...(answer.other === undefined ? [] : ['other'])]
  return [
    [valueName(id), values],
    [otherName(id), answer.other === undefined ? [] : [answer.other]],
  ]
}

/** An answer that a question takes. */
export function answerTo(question: Question): fc.Arbitrary<Answer | undefined> {
  const none = fc.constant(undefined)
  switch (question.kind) {
    case 'section':
    case 'file':
    case 'hidden':
      return none
    case 'short':
    case 'long':
      return fc.oneof(
        none,
        fc.string({ minLength: 1, maxLength: 20, unit: 'grapheme' }).map(tidy).filter(Boolean),
        fc.constantFrom('A', 'b', 'Ab', 'b a'),
      )
    case 'mail':
      return fc.oneof(none, fc.constant('anna@saltmarsh.example'))
    case 'phone':
      return fc.oneof(none, fc.constant('+4949315550142'))
    case 'number':
      return fc.oneof(none, fc.integer({ min: -3, max: 9 }))
    case 'date':
      return fc.oneof(none, fc.constantFrom('2026-07-02', '2026-07-03', '2026-07-04'))
    case 'one':
    case 'dropdown':
      return fc.oneof(
        none,
        fc.constantFrom('a', 'b', 'c').map((key) => ({ chosen: [key] })),
      )
    case 'some':
      return fc.oneof(
        none,
        fc.subarray(['a', 'b', 'c'], { minLength: 1 }).map((chosen) => ({ chosen })),
      )
    case 'yesno':
      return fc.oneof(none, fc.boolean())
    case 'consent':
      return fc.oneof(none, fc.constant(true))
    case 'rating':
      return fc.oneof(none, fc.integer({ min: 1, max: 5 }))
    case 'scale':
      return fc.oneof(none, fc.integer({ min: 0, max: 10 }))
    case 'ranking':
      return fc.oneof(
        none,
        fc.shuffledSubarray(['a', 'b', 'c'], { minLength: 3 }).map((chosen) => ({ chosen })),
      )
  }
}
const tidy = (text: string) => text.replace(/[\p{Cc}\s]+/gu, ' ').trim()

/** Readers without what only the front door has. */
export const plainReaders: AnswerReaders = {
  mail: (text) => (/^[^@\s]+@[^@\s]+$/.test(text) ? text : null),
  phone: (text) => (/^\+\d{6,15}$/.test(text) ? text : null),
  file: () => null,
  hidden: () => '',
  language: 'en',
}

export const asSent = (
  questions: readonly Question[],
  answers: Readonly<Record<string, Answer | undefined>>,
): SentValues =>
  new Map(
    questions.flatMap((each) => {
      const answer = answers[each.id]
      return answer === undefined ? [] : sentFor(each, answer)
    }),
  )
