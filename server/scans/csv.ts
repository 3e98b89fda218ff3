import { escapeFormula, writeTable } from '@flimbo/core/plan'
import { scanColumns, type ScanCell, type ScanColumn } from '../results/index.ts'

/** The columns of the file: what each is headed, and which of a scan's cells stands in it. */
const COLUMNS: readonly (readonly [heading: string, from: ScanColumn])[] = [
  ['scan', 'id'],
  ['time_utc', 'at'],
  ['code_id', 'codeId'],
  ['code', 'codeName'],
  ['route_id', 'routeId'],
  ['route_revision', 'revision'],
  ['outcome', 'outcome'],
  ['lane', 'exit'],
  ['variant', 'variant'],
  ['kept_apart_as', 'apart'],
  ['unique', 'isUnique'],
  ['country', 'country'],
  ['region', 'region'],
  ['city', 'city'],
  ['latitude', 'latitude'],
  ['longitude', 'longitude'],
  ['device', 'device'],
  ['system', 'system'],
  ['system_version', 'systemVersion'],
  ['browser', 'browser'],
  ['language', 'language'],
  ['referrer_host', 'referrer'],
]
const places = COLUMNS.map(([, from]) => ({ from, at: scanColumns.indexOf(from) }))

export const csvHeadings = `${writeTable([COLUMNS.map(([heading]) => heading)])}\r\n`

/** So many different texts are kept as they are written: most of a file is the same few places, devices and codes. */
const TEXTS_MAX = 50_000
const texts = new Map<string, string>()

function writtenText(text: string): string {
  const known = texts.get(text)
  if (known !== undefined) return known
  if (texts.size >= TEXTS_MAX) texts.clear()
  const fresh = writeTable([[escapeFormula(text)]])
  texts.set(text, fresh)
  return fresh
}

function written(from: ScanColumn, cell: ScanCell): string {
  if (cell === null) return from === 'revision' ? '0' : ''
  if (from === 'at') return new Date(cell).toISOString()
  // Only text can be taken for a formula: a minus before a latitude is none.
  return typeof cell === 'number' ? String(cell) : writtenText(cell)
}

/** Some scans as lines of the file. */
export function csvLines(scans: readonly (readonly ScanCell[])[]): string {
  return scans
    .map((scan) => `${places.map(({ from, at }) => written(from, scan[at] ?? null)).join(',')}\r\n`)
    .join('')
}
