import type Sqlite from 'better-sqlite3'
import type { FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { countSteps, pageOfScans, type Sought } from './matching.ts'
import { scopeCondition, scopeOwner, type Within } from './scope.ts'
import type { Apart, Outcome, Scan, DeviceType } from '@flimbo/core/scans'

export interface ScanFilter {
  readonly within: Within
  readonly start: number
  readonly end: number
  readonly counted: 'counted' | 'apart' | 'both'
  /** Those a route decided, real scans that left it this way, whatever code they came by and whichever route that has now. */
  readonly exit?: { readonly routeId: number; readonly name: string } | undefined
}

interface ScanRow extends Omit<Scan, 'unique'> {
  isUnique: number
  outcome: Outcome
  apart: Apart | null
  device: DeviceType
}

const COUNTED = { counted: 'AND s.apart IS NULL', apart: 'AND s.apart IS NOT NULL', both: '' } as const

const COLUMNS = {
  id: 's.id',
  at: 's.at',
  codeId: 's.codeId',
  codeName: 'c.name',
  routeId: 's.routeId',
  revision: 'v.number',
  outcome: 's.outcome',
  exit: 's.exit',
  variant: 's.variant',
  apart: 's.apart',
  isUnique: 's.isUnique',
  country: 'p.country',
  region: 'p.region',
  city: 'p.city',
  latitude: 'p.latitude',
  longitude: 'p.longitude',
  device: 'a.device',
  system: 'a.system',
  systemVersion: 'a.systemVersion',
  browser: 'a.browser',
  language: 's.language',
  referrer: 's.referrer',
} as const
const SELECTED = Object.entries(COLUMNS)
  .map(([name, from]) => `${from} AS ${name}`)
  .join(', ')

export type ScanColumn = keyof typeof COLUMNS
export type ScanCell = string | number | null
/** What stands where in the rows of `scansInOrder`. */
export const scanColumns = Object.keys(COLUMNS) as readonly ScanColumn[]

function where({ within, counted, exit }: ScanFilter): string {
  if (exit)
    return "WHERE s.routeId = ? AND s.at >= ? AND s.at < ? AND s.exit = ? AND (s.apart IS NULL OR s.apart = 'onward')"
  return `WHERE s.codeId IN (SELECT id FROM codes WHERE ${scopeCondition(within).condition}) AND s.at >= ? AND s.at < ? ${COUNTED[counted]}`
}

const JOINED = `JOIN codes c ON c.id = s.codeId JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId
  LEFT JOIN revisions v ON v.id = s.revisionId`

const valuesOf = (filter: ScanFilter) =>
  filter.exit
    ? [filter.exit.routeId, filter.start, filter.end, filter.exit.name]
    : [scopeCondition(filter.within).value, filter.start, filter.end]

const scanOf = ({ isUnique, ...row }: ScanRow): Scan => ({
  ...row,
  revision: row.revision ?? 0,
  unique: isUnique === 1,
})

/**
 * All scans of a filter, the oldest first, some at a time: they are put in order once, by what an index tells of them,
 * and the rows are then read by their numbers. No transaction stays open in between.
 *
 * @returns some rows at a time, their cells as `scanColumns` has them: objects would take three times as long
 */
export function* scansInOrder(
  database: Sqlite.Database,
  filter: ScanFilter,
  atOnce: number,
): Generator<ScanCell[][], undefined, undefined> {
  const ids = Float64Array.from(
    database
      .prepare(`SELECT s.id FROM scans s ${where(filter)} ORDER BY s.at, s.id`)
      .pluck()
      .all(...valuesOf(filter)) as number[],
  )
  const read = database
    .prepare(
      `SELECT ${SELECTED} FROM json_each(?) wanted CROSS JOIN scans s ON s.id = wanted.value ${JOINED} ORDER BY wanted.key`,
    )
    .raw()
  for (let i = 0; i < ids.length; i += atOnce)
    yield read.all(JSON.stringify([...ids.subarray(i, i + atOnce)])) as ScanCell[][]
  return undefined
}

/** Scans row by row, for lists. */
export function readScans(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const byId = database.prepare(
    `SELECT ${SELECTED} FROM json_each(?) wanted CROSS JOIN scans s ON s.id = wanted.value ${JOINED} ORDER BY wanted.key`,
  )
  return {
    page(
      { within, start, end, counted, exit }: ScanFilter,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): { rows: Scan[]; total: number } {
      const sought: Sought = { owner: scopeOwner(database, within), span: { start, end }, counted, exit }
      const { ids, total } = pageOfScans(scans, sought, order, limit, offset)
      return { total, rows: (byId.all(JSON.stringify(ids)) as ScanRow[]).map(scanOf) }
    },

    /** Counted scans of a workspace a minute over an hour, the last of them `last`: whole minutes since 1970. */
    pulse(workspaceId: number, last: number): number[] {
      const codes = database
        .prepare('SELECT c.id FROM codes c JOIN campaigns k ON k.id = c.campaignId WHERE k.workspaceId = ?')
        .pluck()
        .all(workspaceId) as number[]
      return countSteps(scans, { codes: new Set(codes), key: null }, (last - 59) * 60_000, 60_000, 60)
    },
  }
}
