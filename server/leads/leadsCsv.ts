import type { Writable } from 'node:stream'
import { writeTo } from '../api/index.ts'
import { findAmong, tables, type Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { csvCell, csvMoment, csvRow } from '../scans/index.ts'
import { answersIn, shownForms, titleIn } from './formOf.ts'
import type { LeadQuery } from './queries.ts'

const AT_ONCE = 200
const FIXED = [
  ...[
    'lead',
    'time_utc',
    'state',
    'tags',
    'page',
    'code_id',
    'code',
    'route_id',
    'scan',
    'language',
    'country',
  ],
  ...[
    'region',
    'city',
    'device',
    'utm_source',
    'utm_medium',
    'utm_campaign',
    'utm_content',
    'utm_term',
    'consents',
  ],
]

/** Writes leads as a file: what is known of each, and a column for each question of each form that they answered. */
export async function writeLeads(
  out: Writable,
  { database, reader }: { database: Database; reader: Reader },
  query: LeadQuery,
  advance: (done: number) => void,
): Promise<void> {
  const formOf = shownForms(database.read)
  const headings = new Map<string, string>()
  for (const { pageId, part, pageRevisionId } of await reader.ask('leadForms', query)) {
    const form = await formOf(pageRevisionId, part)
    const titleOf = titleIn(form)
    for (const question of form.questions)
      if (question.kind !== 'section')
        headings.set(`${String(pageId)} ${part} ${question.id}`, titleOf(question))
  }
  await writeTo(out, csvRow([...FIXED, ...headings.values()].map(csvCell)))
  let done = 0
  for (let after = 0; ;) {
    const ids = await reader.ask('leadsAfter', query, after, AT_ONCE)
    const last = ids.at(-1)
    if (last === undefined) return
    const rows = await findAmong(database.read, tables.leads, 'id', ids)
    const codes = await findAmong(database.read, tables.codes, 'id', [
      ...new Set(rows.map(({ codeId }) => codeId)),
    ])
    const pages = await findAmong(database.read, tables.pages, 'id', [
      ...new Set(rows.map(({ pageId }) => pageId)),
    ])
    const nameOf = new Map(codes.map(({ id, name }) => [id, name]))
    const pageOf = new Map(pages.map(({ id, name }) => [id, name]))
    let lines = ''
    for (const row of [...rows].sort((a, b) => a.id - b.id)) {
      const form = await formOf(row.pageRevisionId, row.part)
      const texts = new Map(
        answersIn(row, form).map(({ question, text }) => [
          `${String(row.pageId)} ${row.part} ${question}`,
          text,
        ]),
      )
      const utm = (name: string) => row.utm[name] ?? ''
      lines += csvRow([
        csvCell(row.id),
        csvMoment(row.at),
        ...[row.state, row.tags.join(', '), pageOf.get(row.pageId) ?? ''].map(csvCell),
        ...[row.codeId, nameOf.get(row.codeId) ?? '', row.routeId, row.scanId].map(csvCell),
        ...[row.language, row.country, row.region, row.city, row.device].map(csvCell),
        ...['source', 'medium', 'campaign', 'content', 'term'].map((name) => csvCell(utm(name))),
        csvCell(row.consents.map(({ words }) => words).join(' | ')),
        ...[...headings.keys()].map((key) => csvCell(texts.get(key) ?? '')),
      ])
    }
    await writeTo(out, lines)
    done += rows.length
    advance(done)
    after = last
  }
}
