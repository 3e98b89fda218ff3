import { newQuestion, type Question, type QuestionKind } from '@flimbo/core/forms'
import type { Field, Fields } from '@flimbo/core/fields'
import { freshKey } from '../ui/index.ts'

const idsOf = (questions: readonly Question[]) => questions.map(({ id }) => id)

/** Questions with a new one after another, or at their end. */
export function withQuestion(
  questions: readonly Question[],
  kind: QuestionKind,
  after: string | null,
): { questions: Question[]; id: string } {
  const id = freshKey('q', idsOf(questions))
  const at = questions.findIndex((each) => each.id === after)
  const all = [...questions]
  all.splice(at < 0 ? all.length : at + 1, 0, newQuestion(kind, id) as Question)
  return { questions: all, id }
}

/** Questions with one a second time, after itself. Its short name is its own. */
export function withQuestionCopy(
  questions: readonly Question[],
  id: string,
): { questions: Question[]; id: string } {
  const at = questions.findIndex((each) => each.id === id)
  const found = questions[at]
  const copy = freshKey('q', idsOf(questions))
  const all = [...questions]
  if (found)
    all.splice(at + 1, 0, 'name' in found ? { ...found, id: copy, name: '' } : { ...found, id: copy })
  return { questions: all, id: copy }
}

/** An empty row of a list, with keys that no other row has where it has any. */
export function keyedRow(
  of: Fields,
  row: Readonly<Record<string, unknown>>,
  rows: readonly Readonly<Record<string, unknown>>[],
): Readonly<Record<string, unknown>> {
  const keys = Object.entries(of as Readonly<Record<string, Field>>).filter(([, { type }]) => type === 'key')
  return {
    ...row,
    ...Object.fromEntries(
      keys.map(([name]) => [
        name,
        freshKey(
          'c',
          rows.map((each) => String(each[name])),
        ),
      ]),
    ),
  }
}
