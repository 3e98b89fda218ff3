import type { PageEventRow } from '@flimbo/core/pages'
import { csvCell, csvMoment, csvRow } from './csvCells.ts'

/** The columns of a file of what happened on pages: what each is headed, and what stands in it. */
const COLUMNS: readonly (readonly [heading: string, cell: (row: PageEventRow) => string])[] = [
  ['event', ({ id }) => csvCell(id)],
  ['time_utc', ({ at }) => csvMoment(at)],
  ['scan', ({ scanId }) => csvCell(scanId)],
  ['code_id', ({ codeId }) => csvCell(codeId)],
  ['code', ({ codeName }) => csvCell(codeName)],
  ['route_id', ({ routeId }) => csvCell(routeId)],
  ['route_revision', ({ revision }) => csvCell(revision)],
  ['page_id', ({ pageId }) => csvCell(pageId)],
  ['page', ({ pageName }) => csvCell(pageName)],
  ['part_id', ({ part }) => csvCell(part)],
  ['part', ({ partName }) => csvCell(partName)],
  ['what', ({ kind }) => csvCell(kind)],
  ['which', ({ item }) => csvCell(item)],
  ['kept_apart_as', ({ apart }) => csvCell(apart ?? '')],
  ['country', ({ country }) => csvCell(country)],
  ['region', ({ region }) => csvCell(region)],
  ['city', ({ city }) => csvCell(city)],
  ['device', ({ device }) => csvCell(device)],
  ['language', ({ language }) => csvCell(language)],
]

export const eventHeadings = csvRow(COLUMNS.map(([heading]) => heading))

/** Some of what happened on pages as lines of the file. */
export const eventLines = (rows: readonly PageEventRow[]): string =>
  rows.map((row) => csvRow(COLUMNS.map(([, cell]) => cell(row)))).join('')
