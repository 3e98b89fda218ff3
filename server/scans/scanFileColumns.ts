import { scanColumns, type ScanCell, type ScanColumn } from '../results/index.ts'

/** What stands in a column of a file of scans. */
export type ScanFileKind = 'integer' | 'moment' | 'flag' | 'degrees' | 'text'

interface ScanFileColumn {
  readonly heading: string
  readonly from: ScanColumn
  readonly kind: ScanFileKind
  /** Where its cell stands in a row. */
  readonly at: number
}

const COLUMNS: readonly (readonly [heading: string, from: ScanColumn, kind: ScanFileKind])[] = [
  ['scan', 'id', 'integer'],
  ['time_utc', 'at', 'moment'],
  ['code_id', 'codeId', 'integer'],
  ['code', 'codeName', 'text'],
  ['route_id', 'routeId', 'integer'],
  ['route_revision', 'revision', 'integer'],
  ['outcome', 'outcome', 'text'],
  ['lane', 'exit', 'text'],
  ['variant', 'variant', 'text'],
  ['kept_apart_as', 'apart', 'text'],
  ['unique', 'isUnique', 'flag'],
  ['country', 'country', 'text'],
  ['region', 'region', 'text'],
  ['city', 'city', 'text'],
  ['latitude', 'latitude', 'degrees'],
  ['longitude', 'longitude', 'degrees'],
  ['device', 'device', 'text'],
  ['system', 'system', 'text'],
  ['system_version', 'systemVersion', 'text'],
  ['browser', 'browser', 'text'],
  ['language', 'language', 'text'],
  ['referrer_host', 'referrer', 'text'],
]

/** The columns of a file of scans, in their order: what each is headed, and which of a scan's cells stands in it. */
export const scanFileColumns: readonly ScanFileColumn[] = COLUMNS.map(([heading, from, kind]) => ({
  ...{ heading, from, kind },
  at: scanColumns.indexOf(from),
}))

/** A cell as it stands in a column: a revision that is not known any more is 0. */
export const cellOf = ({ from, at }: ScanFileColumn, row: readonly ScanCell[]): ScanCell =>
  row[at] ?? (from === 'revision' ? 0 : null)
