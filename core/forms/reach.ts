import { OTHER, type Answer } from './answers.ts'
import type { AnswerTest } from './branch.ts'
import type { Asked, Question } from './questions.ts'
import { RATING_STEPS, SCALE_MOST } from './readAnswer.ts'
import { isTaken } from './shown.ts'
import { FIRST_DAY, shiftDay } from '../time/index.ts'

/** Ways through a form that are tried before nothing is said of it. */
const WAYS_MAX = 50_000
/** Choices of one question whose every combination is tried. */
const COMBINED_MAX = 8

/** Each combination of some keys. */
const combinations = (keys: readonly string[]): string[][] =>
  keys.reduce<string[][]>((all, key) => [...all, ...all.map((each) => [...each, key])], [[]])

/** Numbers that stand for all that tests tell apart, within what a question takes. */
function numbersFor(tests: readonly AnswerTest[], least: number, most: number, step: number): number[] {
  const bounds = tests.flatMap((test) => (test.is === 'least' || test.is === 'most' ? [test.than] : []))
  const around = bounds.flatMap((than) => {
    const near = Math.round(than / step) * step
    return [near - step, near, near + step]
  })
  return [...new Set([least, most, ...around])].filter((value) => value >= least && value <= most)
}

function choicesFor(
  question: Extract<Asked, { kind: 'one' | 'some' | 'dropdown' }>,
  tests: readonly AnswerTest[],
): Answer[] {
  const keys = question.choices.map(({ key }) => key)
  const named = new Set(tests.flatMap((test) => (test.is === 'chosen' ? test.of : [])))
  const told = keys.filter((key) => named.has(key))
  const rest = keys.filter((key) => !named.has(key))
  const takesOther = question.kind !== 'dropdown' && question.hasOther
  const alone: Answer[] = takesOther ? [{ chosen: [], other: OTHER }] : []
  if (question.kind !== 'some')
    return [...alone, ...[...told, ...rest.slice(0, 1)].map((key) => ({ chosen: [key] }))]
  const { least, most } = question
  const others = takesOther ? [false, true] : [false]
  return combinations(told.slice(0, COMBINED_MAX)).flatMap((some) =>
    others.flatMap((hasOther): Answer[] => {
      const wanted = Math.max(least ?? 0, 1) - some.length - (hasOther ? 1 : 0)
      const chosen = [...some, ...rest.slice(0, Math.max(0, wanted))]
      const count = chosen.length + (hasOther ? 1 : 0)
      if (count === 0 || count < (least ?? 0) || count > (most ?? Infinity)) return []
      return [hasOther ? { chosen, other: OTHER } : { chosen }]
    }),
  )
}

/** Days that stand for all that tests tell apart, within what a question takes. */
function daysFor({ first, last }: Extract<Asked, { kind: 'date' }>, tests: readonly AnswerTest[]): string[] {
  const bounds = tests.flatMap((test) => (test.is === 'from' || test.is === 'until' ? [test.day] : []))
  const around = bounds.flatMap((day) => [shiftDay(day, -1), day, shiftDay(day, 1)])
  const ends = [first, last].filter((day) => day !== '')
  const all = [...new Set([...ends, ...around])].filter(
    (day) => (first === '' || day >= first) && (last === '' || day <= last),
  )
  return all.length === 0 ? [FIRST_DAY] : all
}

/** Texts that say any of the words that tests tell apart, and none; what is asked for has no line breaks. */
function textsFor(tests: readonly AnswerTest[]): string[] {
  const words = [...new Set(tests.flatMap((test) => (test.is === 'says' ? [test.text] : [])))]
  return combinations(words.slice(0, COMBINED_MAX)).map((some) => (some.length === 0 ? '-' : some.join('\n')))
}

/** Answers that stand for all that tests tell apart; undefined is none. */
function answersFor(question: Asked, tests: readonly AnswerTest[]): (Answer | undefined)[] {
  const isLeftOut = question.kind === 'hidden' || !question.isRequired
  return [...(isLeftOut ? [undefined] : []), ...givenFor(question, tests)]
}
function givenFor(question: Asked, tests: readonly AnswerTest[]): Answer[] {
  switch (question.kind) {
    case 'one':
    case 'some':
    case 'dropdown':
      return choicesFor(question, tests)
    case 'ranking':
      return [{ chosen: question.choices.map(({ key }) => key) }]
    case 'yesno':
      return [true, false]
    case 'consent':
      return [true]
    case 'rating':
      return numbersFor(tests, 1, question.steps ?? RATING_STEPS, 1)
    case 'scale':
      return numbersFor(tests, 0, SCALE_MOST, 1)
    case 'number': {
      const step = 10 ** -(question.decimals ?? 0)
      return numbersFor(tests, question.least ?? -1e12, question.most ?? 1e12, step)
    }
    case 'date':
      return daysFor(question, tests)
    case 'short':
    case 'long':
    case 'mail':
    case 'phone':
    case 'hidden':
      return textsFor(tests)
    case 'file':
      return ['x']
  }
}

/** A question that others depend on, and those that depend on it in turn. */
function dependsOn(questions: readonly Question[], id: string): Set<string> {
  const byId = new Map(questions.map((each) => [each.id, each]))
  const sectionOf = new Map<string, string>()
  let section = ''
  for (const each of questions) {
    if (each.kind === 'section') section = each.id
    else if (section !== '') sectionOf.set(each.id, section)
  }
  const needed = new Set<string>()
  const add = (each: string | undefined) => {
    if (each === undefined || needed.has(each)) return
    needed.add(each)
    for (const { question } of byId.get(each)?.branch.tests ?? []) add(question)
    add(sectionOf.get(each))
  }
  add(id)
  return needed
}

/** Whether somebody can be asked a question, whatever they answer before; null where there are too many ways to try. */
function canReach(questions: readonly Question[], id: string): boolean | null {
  const needed = dependsOn(questions, id)
  const rows = questions.filter((each) => needed.has(each.id))
  const testsOf = (of: string) =>
    rows.flatMap(({ branch }) => branch.tests.filter(({ question }) => question === of))
  let ways = 0
  const walk = (at: number, answers: Record<string, Answer>, isInSection: boolean): boolean => {
    const each = rows[at]
    if (!each || ++ways > WAYS_MAX) return false
    const isAsked = (each.kind === 'section' || isInSection) && isTaken(each.branch, answers)
    if (each.id === id) return isAsked
    if (each.kind === 'section') return walk(at + 1, answers, isAsked)
    const tries = isAsked ? answersFor(each, testsOf(each.id)) : [undefined]
    return tries.some((answer) =>
      walk(at + 1, answer === undefined ? answers : { ...answers, [each.id]: answer }, isInSection),
    )
  }
  const isReached = walk(0, {}, true)
  return !isReached && ways > WAYS_MAX ? null : isReached
}

/** The questions and sections of a form that nobody is ever asked, by their ids. */
export const unreachable = (questions: readonly Question[]): string[] =>
  questions
    .filter(({ branch, id }) => branch.tests.length > 0 || dependsOn(questions, id).size > 1)
    .filter(({ id }) => canReach(questions, id) === false)
    .map(({ id }) => id)
