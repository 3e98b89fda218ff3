import { isChosen, type Answers, type Question } from '@flimbo/core/forms'
import { LEAD_COLUMNS, type LeadColumn, type LeadFileLook } from '@flimbo/core/leads'
import { said } from '@flimbo/core/fields'
import {
  findAmong,
  tables,
  type CodeRow,
  type Database,
  type LeadRow,
  type PageRow,
} from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { answersIn, shownForms, titleIn, type ShownForm } from './formOf.ts'
import type { LeadQuery } from './queries.ts'

export type Cell = string | number | Date
/** A column of a file: what stands in its first row, and in that of a lead. */
interface Column {
  readonly heading: string
  readonly cell: (of: Of) => Cell
}
/** A lead with what its columns are made of. */
interface Of {
  readonly row: LeadRow
  readonly code: CodeRow | undefined
  readonly page: PageRow | undefined
  readonly stateName: string
  /** What it answered, in words, by question. */
  readonly texts: ReadonlyMap<string, string>
}

const AT_ONCE = 200
const utm =
  (name: string) =>
  ({ row }: Of) =>
    row.utm[name] ?? ''

const FIXED: Readonly<Record<LeadColumn, Column['cell']>> = {
  lead: ({ row }) => row.id,
  time_utc: ({ row }) => new Date(row.at),
  state: ({ stateName }) => stateName,
  tags: ({ row }) => row.tags.join(', '),
  page: ({ page }) => page?.name ?? '',
  code_id: ({ row }) => row.codeId,
  code: ({ code }) => code?.name ?? '',
  route_id: ({ row }) => row.routeId,
  scan: ({ row }) => row.scanId,
  language: ({ row }) => row.language,
  country: ({ row }) => row.country,
  region: ({ row }) => row.region,
  city: ({ row }) => row.city,
  device: ({ row }) => row.device,
  utm_source: utm('source'),
  utm_medium: utm('medium'),
  utm_campaign: utm('campaign'),
  utm_content: utm('content'),
  utm_term: utm('term'),
  confirmed_utc: ({ row }) => (row.confirmedAt === null ? '' : new Date(row.confirmedAt)),
  consents: ({ row }) => row.consents.map(({ words }) => words).join(' | '),
}

interface Form extends ShownForm {
  readonly pageId: number
  readonly part: string
}
const isOf = ({ row }: Of, { pageId, part }: Form) => row.pageId === pageId && row.part === part

/** A column for each of some choices: 1 where it was made, by its place in a ranking. */
function choiceColumns(
  form: Form,
  question: Question & { choices: readonly { key: string; label: object }[] },
): Column[] {
  const title = titleIn(form)(question)
  const reading = { language: form.languages[0] ?? 'en', languages: form.languages }
  const chosenIn = (answers: Answers) => {
    const answer = answers[question.id]
    return isChosen(answer) ? answer : null
  }
  const columns = question.choices.map(({ key, label }): Column => ({
    heading: `${title}: ${said(reading, label as Record<string, string>).text}`,
    cell(of) {
      const place = isOf(of, form) ? (chosenIn(of.row.answers)?.chosen.indexOf(key) ?? -1) : -1
      if (place < 0) return ''
      return question.kind === 'ranking' ? place + 1 : 1
    },
  }))
  const hasOther = 'hasOther' in question && question.hasOther
  const other: Column = {
    heading: `${title}: other`,
    cell: (of) => (isOf(of, form) ? (chosenIn(of.row.answers)?.other ?? '') : ''),
  }
  return hasOther ? [...columns, other] : columns
}

function questionColumns(form: Form, look: LeadFileLook): Column[] {
  return form.questions.flatMap((question): Column[] => {
    if (question.kind === 'section') return []
    if (look.choices === 'split' && 'choices' in question) return choiceColumns(form, question)
    const cell = (of: Of): Cell => {
      if (!isOf(of, form)) return ''
      const answer = of.row.answers[question.id]
      return typeof answer === 'number' ? answer : (of.texts.get(question.id) ?? '')
    }
    return [{ heading: titleIn(form)(question), cell }]
  })
}

/** Leads as rows of a file, the headings first; the oldest lead next. */
export async function* leadTable(
  {
    database: { read },
    reader,
    nameOf,
  }: { database: Database; reader: Reader; nameOf: (state: string) => string },
  query: LeadQuery,
  look: LeadFileLook,
): AsyncGenerator<readonly Cell[]> {
  const formOf = shownForms(read)
  const forms: Form[] = []
  for (const { pageId, part, pageRevisionId } of await reader.ask('leadForms', query))
    forms.push({ ...(await formOf(pageRevisionId, part)), pageId, part })
  const fixed = LEAD_COLUMNS.filter((name) => look.columns.includes(name))
  const columns: Column[] = [
    ...fixed.map((name) => ({ heading: name, cell: FIXED[name] })),
    ...(look.isAnswered ? forms.flatMap((form) => questionColumns(form, look)) : []),
  ]
  yield columns.map(({ heading }) => heading)
  for (let after = 0; ;) {
    const ids = await reader.ask('leadsAfter', query, after, AT_ONCE)
    const last = ids.at(-1)
    if (last === undefined) return
    const rows = await findAmong(read, tables.leads, 'id', ids)
    const idsOf = (name: 'codeId' | 'pageId') => [...new Set(rows.map((row) => row[name]))]
    const codes = new Map(
      (await findAmong(read, tables.codes, 'id', idsOf('codeId'))).map((row) => [row.id, row]),
    )
    const pages = new Map(
      (await findAmong(read, tables.pages, 'id', idsOf('pageId'))).map((row) => [row.id, row]),
    )
    for (const row of [...rows].sort((a, b) => a.id - b.id)) {
      const form = await formOf(row.pageRevisionId, row.part)
      const of: Of = {
        row,
        code: codes.get(row.codeId),
        page: pages.get(row.pageId),
        stateName: nameOf(row.state),
        texts: new Map(answersIn(row, form).map(({ question, text }) => [question, text])),
      }
      yield columns.map(({ cell }) => cell(of))
    }
    after = last
  }
}
