import { answerText, type Answers, type Question } from '@flimbo/core/forms'
import { wordsFor } from '@flimbo/core/words'
import type { LeadRecord } from './record.ts'

const TITLE_MAX = 120
const SEARCH_MAX = 20_000

/** The first answer to a question of a kind: what persons are joined by. */
function firstOf(questions: readonly Question[], answers: Answers, kind: 'mail' | 'phone'): string {
  const found = questions.find((each) => each.kind === kind && typeof answers[each.id] === 'string')
  const answer = found && answers[found.id]
  return typeof answer === 'string' ? answer : ''
}

/** What a lead is listed, found and joined by. */
export function calledBy(
  questions: readonly Question[],
  languages: readonly string[],
  answers: Answers,
  language: string,
): Pick<LeadRecord, 'email' | 'phone' | 'title' | 'search'> {
  const around = { language, languages, words: wordsFor([language]).words.forms }
  const texts = questions.map((each) => answerText(each, answers[each.id], around))
  const name = questions.find((each) => each.kind === 'short' && answers[each.id] !== undefined)
  const email = firstOf(questions, answers, 'mail').toLowerCase()
  const phone = firstOf(questions, answers, 'phone')
  const title = (name ? answerText(name, answers[name.id], around) : '') || email || phone
  const search = texts.filter((each) => each !== '').join('\n')
  return { email, phone, title: title.slice(0, TITLE_MAX), search: search.toLowerCase().slice(0, SEARCH_MAX) }
}
