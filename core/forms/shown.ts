import { isChosen, OTHER, type Answer, type Answers } from './answers.ts'
import type { AnswerTest, Branch } from './branch.ts'
import type { Question } from './questions.ts'

/** The keys that an answer chose; of yes and no, `yes` or `no`. */
function keysOf(answer: Answer | undefined): readonly string[] {
  if (typeof answer === 'boolean') return [answer ? 'yes' : 'no']
  if (!isChosen(answer)) return []
  return answer.other === undefined ? answer.chosen : [...answer.chosen, OTHER]
}

function passes(test: AnswerTest, answer: Answer | undefined): boolean {
  switch (test.is) {
    case 'answered':
      return answer !== undefined
    case 'empty':
      return answer === undefined
    case 'chosen':
      return keysOf(answer).some((key) => test.of.includes(key))
    case 'least':
      return typeof answer === 'number' && answer >= test.than
    case 'most':
      return typeof answer === 'number' && answer <= test.than
    // Days as they are kept are in the order of their letters.
    case 'from':
      return typeof answer === 'string' && answer >= test.day
    case 'until':
      return typeof answer === 'string' && answer <= test.day
    case 'says':
      return typeof answer === 'string' && answer.toLowerCase().includes(test.text.toLowerCase())
  }
}

/** Whether a branch is taken, by the answers to what is asked before it. */
export function isTaken({ match, tests }: Branch, answers: Answers): boolean {
  if (tests.length === 0) return true
  const passed = (test: AnswerTest) => passes(test, answers[test.question])
  if (match === 'all') return tests.every(passed)
  return match === 'any' ? tests.some(passed) : !tests.some(passed)
}

/**
 * What of a form is asked of somebody who answers so. This is the only function that decides it: the front door, the
 * phone, the preview and the review call it. A question that is not asked has no answer, whatever was sent.
 *
 * @param answerOf the answer to a question that is asked, where there is one
 * @returns the ids of the questions and sections that are asked, and the answers to them
 */
export function walkForm(
  questions: readonly Question[],
  answerOf: (question: Question) => Answer | undefined,
): { readonly shown: ReadonlySet<string>; readonly answers: Answers } {
  const shown = new Set<string>()
  const answers: Record<string, Answer> = {}
  let isInSection: boolean = true
  for (const each of questions) {
    const isHere: boolean = each.kind === 'section' || isInSection
    const isAsked: boolean = isHere && isTaken(each.branch, answers)
    if (each.kind === 'section') isInSection = isAsked
    if (!isAsked) continue
    shown.add(each.id)
    const answer = each.kind === 'section' ? undefined : answerOf(each)
    if (answer !== undefined) answers[each.id] = answer
  }
  return { shown, answers }
}

/** The questions of a form by its sections; those before the first section stand in one without. */
export function sectionsOf(questions: readonly Question[]): {
  readonly section: Extract<Question, { kind: 'section' }> | null
  readonly questions: Exclude<Question, { kind: 'section' }>[]
}[] {
  const sections: ReturnType<typeof sectionsOf> = [{ section: null, questions: [] }]
  for (const each of questions) {
    if (each.kind === 'section') sections.push({ section: each, questions: [] })
    else sections.at(-1)?.questions.push(each)
  }
  return sections.filter(({ section, questions: own }) => section !== null || own.length > 0)
}
