import { answerTable, type AnswerTable } from '../charts/index.ts'
import { plainName } from '../tagging/index.ts'
import { questionsIn, type MadeQuestion, type MadeReport } from './made.ts'

/** The answer to a question as a table, figures as numbers. */
export interface ReportTable extends AnswerTable {
  readonly question: MadeQuestion
  /** A name that no other of its report has. */
  readonly name: string
}

/** A sheet of a workbook has a name of at most 31 characters, without these signs (Office Open XML, from memory). */
const SHEET_NAME_MAX = 31
const NOT_IN_NAMES = /[\\/?*[\]:']/g

/** Names of sheets by the titles of their questions: each one its own, whatever the case. */
export function sheetNames(titles: readonly string[], taken: readonly string[] = []): string[] {
  const used = new Set(taken.map((each) => each.toLowerCase()))
  return titles.map((title) => {
    const plain = title.replace(NOT_IN_NAMES, ' ').replace(/\s+/g, ' ').trim() || 'Question'
    for (let n = 1; ; n++) {
      const more = n === 1 ? '' : ` ${String(n)}`
      const name = plain.slice(0, SHEET_NAME_MAX - more.length).trim() + more
      if (used.has(name.toLowerCase())) continue
      used.add(name.toLowerCase())
      return name
    }
  })
}

/** All rows of all questions of a report, in its order. */
export function reportTables(made: Pick<MadeReport, 'sections'>): ReportTable[] {
  const questions = questionsIn(made)
  const names = sheetNames(
    questions.map(({ title }) => title),
    ['Report'],
  )
  return questions.map((question, i) => {
    const { what, by, answer, against } = question
    return { question, name: names[i] ?? '', ...answerTable(what, by, answer, against) }
  })
}

/** What a file of a report is called: its name in plain signs, and the day it was made. */
export const reportFileName = ({ name }: Pick<MadeReport, 'name'>, day: string, ending: string): string =>
  `${plainName(name, 60) || 'report'}-${day}.${ending}`
