import type { AnswerTest } from './branch.ts'
import { OTHER } from './answers.ts'
import type { Question } from './questions.ts'
import { unreachable } from './reach.ts'

/** What is wrong with a form, as a sentence that says what to do. */
export interface FormFault {
  /** The question it is about. */
  readonly id: string
  /** The field of it; `branch` for when it is asked. */
  readonly path: string
  readonly sentence: string
}

/** The keys that a condition may ask for; null where what is asked about is not chosen. */
function keysOf(question: Question): ReadonlySet<string> | null {
  if (question.kind === 'yesno' || question.kind === 'consent') return new Set(['yes', 'no'])
  if (!('choices' in question)) return null
  const hasOther = 'hasOther' in question && question.hasOther
  return new Set([...question.choices.map(({ key }) => key), ...(hasOther ? [OTHER] : [])])
}
const isWritten = ({ kind }: Question) =>
  kind === 'short' || kind === 'long' || kind === 'mail' || kind === 'phone' || kind === 'hidden'
const isCounted = ({ kind }: Question) => kind === 'number' || kind === 'rating' || kind === 'scale'

function testFault(
  test: AnswerTest,
  earlier: ReadonlyMap<string, Question>,
  all: ReadonlySet<string>,
): string | null {
  const about = earlier.get(test.question)
  if (!about)
    return all.has(test.question)
      ? 'A condition asks about this question itself or a later one. Ask about one that comes before, or move this one down.'
      : 'A condition asks about a question that was removed. Choose another, or remove the condition.'
  if (test.is === 'chosen') {
    const keys = keysOf(about)
    if (!keys) return 'A condition asks what was chosen where nothing is. Choose what it asks again.'
    if (test.of.some((key) => !keys.has(key)))
      return 'A condition asks for a choice that was removed. Choose another.'
  }
  if ((test.is === 'from' || test.is === 'until') && about.kind !== 'date')
    return 'A condition asks for a day where none is given. Choose what it asks again.'
  if (test.is === 'says' && test.text === '')
    return 'A condition asks for no words. Write those it looks for.'
  if (test.is === 'says' && !isWritten(about))
    return 'A condition asks for words where none are written. Choose what it asks again.'
  return (test.is === 'least' || test.is === 'most') && !isCounted(about)
    ? 'A condition asks for a number where none is given. Choose what it asks again.'
    : null
}

function ownFaults(question: Question): { path: string; sentence: string }[] {
  const faults: { path: string; sentence: string }[] = []
  if (
    'least' in question &&
    question.least !== null &&
    question.most !== null &&
    question.least > question.most
  )
    faults.push({ path: 'most', sentence: 'This is less than the least. Change one of them.' })
  if (question.kind === 'some') {
    const count = question.choices.length + (question.hasOther ? 1 : 0)
    if (question.least !== null && question.least > count)
      faults.push({ path: 'least', sentence: 'There are not so many choices. Ask for fewer, or add some.' })
  }
  if (
    question.kind === 'date' &&
    question.first !== '' &&
    question.last !== '' &&
    question.first > question.last
  )
    faults.push({ path: 'last', sentence: 'The last day lies before the first. Change one of them.' })
  if (question.kind === 'hidden' && question.from === 'query' && question.parameter.trim() === '')
    faults.push({ path: 'parameter', sentence: 'Write what the value is called in the address.' })
  if ('choices' in question) {
    const keys = question.choices.map(({ key }) => key)
    if (new Set(keys).size !== keys.length || keys.includes(OTHER))
      faults.push({
        path: 'choices',
        sentence: 'Two choices have the same key. Remove one, and add it again.',
      })
  }
  return faults
}

/**
 * What is wrong with the questions of a form beside what its fields say themselves: conditions that ask about what is
 * not asked before, bounds that leave nothing, and questions that nobody is ever asked.
 */
export function reviewForm(questions: readonly Question[]): FormFault[] {
  const faults: FormFault[] = []
  const all = new Set(questions.map(({ id }) => id))
  const earlier = new Map<string, Question>()
  const names = new Map<string, string>()
  for (const question of questions) {
    const { id, branch } = question
    if (earlier.has(id)) faults.push({ id, path: 'id', sentence: 'Two questions have the same key.' })
    const wrong = branch.tests.map((test) => testFault(test, earlier, all)).find((each) => each !== null)
    if (wrong) faults.push({ id, path: 'branch', sentence: wrong })
    faults.push(...ownFaults(question).map((found) => ({ id, ...found })))
    const name = question.kind === 'section' ? '' : question.name.trim().toLowerCase()
    if (name !== '' && names.has(name))
      faults.push({ id, path: 'name', sentence: 'Another question has this short name. Choose another.' })
    names.set(name, id)
    earlier.set(id, question)
  }
  if (questions.length > 0 && questions.every(({ kind }) => kind === 'section' || kind === 'hidden'))
    faults.push({ id: questions[0]?.id ?? '', path: '', sentence: 'Nothing is asked yet: add a question.' })
  if (faults.some(({ path }) => path === 'branch' || path === 'id')) return faults
  for (const id of unreachable(questions))
    faults.push({
      id,
      path: 'branch',
      sentence: 'Nobody is ever asked this: no answers before it meet its conditions. Change them.',
    })
  return faults
}
