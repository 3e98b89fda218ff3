import { scanColumns, type ScanCell, type ScanColumn } from '../results/index.ts'
import { csvCell, csvMoment, csvRow } from './csvCells.ts'

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

export const csvHeadings = csvRow(COLUMNS.map(([heading]) => heading))

function written(from: ScanColumn, cell: ScanCell): string {
  if (cell === null) return from === 'revision' ? '0' : ''
  return from === 'at' ? csvMoment(Number(cell)) : csvCell(cell)
}

/** Some scans as lines of the file. */
export const csvLines = (scans: readonly (readonly ScanCell[])[]): string =>
  scans.map((scan) => csvRow(places.map(({ from, at }) => written(from, scan[at] ?? null)))).join('')
