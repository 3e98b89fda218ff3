import type { Answers } from './answers.ts'
import type { Question } from './questions.ts'
import { readAnswer, type AnswerFault, type AnswerReaders, type SentValues } from './readAnswer.ts'
import { walkForm } from './shown.ts'

/** What somebody sent, read: what was asked of them, what they answered, and what is wrong with it. */
export interface ReadForm {
  readonly shown: ReadonlySet<string>
  readonly answers: Answers
  /** By the ids of the questions. */
  readonly faults: ReadonlyMap<string, AnswerFault>
}

/**
 * Reads a form as it was sent. An answer that is wrong counts as none for what depends on it; what is not asked is
 * neither read nor missed.
 */
export function readForm(questions: readonly Question[], sent: SentValues, readers: AnswerReaders): ReadForm {
  const faults = new Map<string, AnswerFault>()
  const walked = walkForm(questions, (question) => {
    if (question.kind === 'section') return undefined
    const { answer, fault } = readAnswer(question, sent, readers)
    if (fault) faults.set(question.id, fault)
    return answer
  })
  return { ...walked, faults }
}
