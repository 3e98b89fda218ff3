import { said } from '@flimbo/core/fields'
import type { EntityManager } from 'typeorm'
import { LRUCache } from 'lru-cache'
import { answerText, isFile, questionTitle, type FormSettings, type Question } from '@flimbo/core/forms'
import type { LeadAnswer } from '@flimbo/core/leads'
import { wordsFor } from '@flimbo/core/words'
import { tables, type LeadRow } from '../database/index.ts'

/** A form as some leads were shown it. */
export interface ShownForm {
  /** What else it says and does; null where it is gone. */
  readonly settings: FormSettings | null
  readonly questions: readonly Question[]
  readonly languages: readonly string[]
}
const NO_FORM: ShownForm = { settings: null, questions: [], languages: [] }
const FORMS_MAX = 200

/** Finds forms as leads were shown them: by the revision of the page, each read once. */
export function shownForms(read: EntityManager) {
  const known = new LRUCache<string, ShownForm>({ max: FORMS_MAX })
  return async (pageRevisionId: number, part: string): Promise<ShownForm> => {
    const name = `${String(pageRevisionId)} ${part}`
    const there = known.get(name)
    if (there) return there
    const revision = await read.findOneBy(tables.pageRevisions, { id: pageRevisionId })
    const found = revision?.content.parts.find(({ id }) => id === part)
    const form =
      revision && found?.kind === 'form'
        ? { settings: found, questions: found.questions, languages: revision.content.languages }
        : NO_FORM
    known.set(name, form)
    return form
  }
}

/** The words of a form as its own language has them. */
export const titleIn =
  ({ languages }: ShownForm) =>
  (question: Question): string =>
    questionTitle(question, (value) => said({ language: languages[0] ?? 'en', languages }, value).text)

/** What somebody answered, in the words of the form's own language, in the order they were asked. */
export function answersIn({ answers }: Pick<LeadRow, 'answers'>, form: ShownForm): LeadAnswer[] {
  const { questions, languages } = form
  const [language = 'en'] = languages
  const around = { language, languages, words: wordsFor([language]).words.forms }
  const titleOf = titleIn(form)
  const known = new Set(questions.map(({ id }) => id))
  const asked = questions.flatMap((question): LeadAnswer[] => {
    const answer = answers[question.id]
    if (answer === undefined) return []
    return [
      {
        question: question.id,
        title: titleOf(question),
        text: answerText(question, answer, around),
        file: isFile(answer) ? answer : null,
      },
    ]
  })
  // Should the form be gone, what was answered is not.
  const others = Object.entries(answers).flatMap(([id, answer]): LeadAnswer[] =>
    known.has(id)
      ? []
      : [
          {
            question: id,
            title: id,
            text: isFile(answer) ? answer.name : JSON.stringify(answer),
            file: null,
          },
        ],
  )
  return [...asked, ...others]
}
