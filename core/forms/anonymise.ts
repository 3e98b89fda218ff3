import type { Answers } from './answers.ts'
import type { Question, QuestionKind } from './questions.ts'

/** Kinds of questions whose answers may tell who answered: whatever is written, called, or sent. */
const PERSONAL: ReadonlySet<QuestionKind> = new Set([
  'short',
  'long',
  'mail',
  'phone',
  'file',
  'hidden',
  'date',
])

/**
 * Answers without what may tell who answered: choices, numbers, ratings and consents stay, so that figures do. What was
 * written in beside a choice goes, and so does all that no question is known of any more.
 */
export function anonymise(questions: readonly Question[], answers: Answers): Answers {
  const kept = questions.flatMap(({ id, kind }) => {
    const answer = answers[id]
    if (answer === undefined || PERSONAL.has(kind)) return []
    const isWritten = typeof answer === 'object' && 'other' in answer
    return [[id, isWritten ? { chosen: answer.chosen } : answer] as const]
  })
  return Object.fromEntries(kept)
}
