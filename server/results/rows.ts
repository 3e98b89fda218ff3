import type Sqlite from 'better-sqlite3'
import type { FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { decidedBy, isReal } from './exits.ts'
import { allInOrder, countSteps, pageInOrder, type Sought } from './matching.ts'
import { codeRows } from './codeRows.ts'
import { questionCounts } from './questionCount.ts'
import { scopeOwner, type Within } from './scope.ts'
import { scanRowReader } from './scanRowReader.ts'
import { sideMaker } from './sideMaker.ts'
import type { Filters } from '@flimbo/core/dimensions'
import type { ChannelRule } from '@flimbo/core/tagging'
import { LAST_HOUR_SECONDS, type Apart, type Outcome, type Scan, type DeviceType } from '@flimbo/core/scans'

export interface ScanFilter {
  readonly within: Within
  readonly start: number
  readonly end: number
  readonly counted: 'counted' | 'apart' | 'both'
  /** Those a route decided, real scans that left it this way, whatever code they came by and whichever route that has now. */
  readonly exit?: { readonly routeId: number; readonly name: string } | undefined
  /** Only those that all filters of a figure take: its span is of days of the zone then. */
  readonly narrowed?: {
    readonly filters: Filters
    readonly zone: string
    readonly channels: readonly ChannelRule[]
  }
}

interface ScanRow extends Omit<Scan, 'unique'> {
  isUnique: number
  outcome: Outcome
  apart: Apart | null
  device: DeviceType
}

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

const JOINED = `JOIN codes c ON c.id = s.codeId JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId
  LEFT JOIN revisions v ON v.id = s.revisionId`

/** A scan by its number: each on its own, so that not all of them are looked through while some are being moved. */
const BY_ID = `SELECT ${SELECTED} FROM scans s ${JOINED} WHERE s.id = ?`

const scanOf = ({ isUnique, ...row }: ScanRow): Scan => ({
  ...row,
  revision: row.revision ?? 0,
  unique: isUnique === 1,
})

function soughtBy(database: Sqlite.Database, filter: ScanFilter): Sought {
  const { start, end, counted, exit } = filter
  return {
    ...narrowed(database, filter),
    span: { start, end },
    counted,
    ways: exit && {
      group: exit.routeId,
      isWanted: decidedBy(exit.routeId, (way) => isReal(way) && way.exit === exit.name),
    },
  }
}

/** Among which codes scans are sought, and which of theirs: as the figures of the same filters count them. */
function narrowed(
  database: Sqlite.Database,
  { within, start, end, narrowed: by }: ScanFilter,
): Pick<Sought, 'owner' | 'filters'> {
  if (!by) return { owner: scopeOwner(database, within), filters: [] }
  const { filters, zone, channels } = by
  const codes = codeRows(database, within)
  const sides = sideMaker(database)({ codes, channels, zone, span: { start, end } })
  const wanted = questionCounts({ codes, within, sides, channels })([], filters)
  return {
    owner: { codes: new Set(wanted.codes.map(({ id }) => id)), key: null },
    filters: wanted.filters,
  }
}

/**
 * All scans of a filter, the oldest first, some at a time: they are put in order once, and the rows are then read by
 * their numbers. No transaction stays open in between.
 *
 * @returns some rows at a time, their cells as `scanColumns` has them: objects would take three times as long; and how many there are in all
 */
export function* scansInOrder(
  database: Sqlite.Database,
  scans: FactStore<ScanDimension>,
  filter: ScanFilter,
  atOnce: number,
): Generator<{ rows: ScanCell[][]; total: number }, undefined, undefined> {
  const ids = database.transaction(() => allInOrder(scans, soughtBy(database, filter)))()
  const read = scanRowReader(database, database.prepare(BY_ID).raw())
  for (let i = 0; i < ids.length; i += atOnce)
    yield { rows: read(ids.subarray(i, i + atOnce)), total: ids.length }
  return undefined
}

/** Scans row by row, for lists. */
export function readScans(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const byId = database.prepare(BY_ID)
  return {
    page(
      filter: ScanFilter,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): { rows: Scan[]; total: number } {
      const { ids, total } = pageInOrder(scans, soughtBy(database, filter), order, limit, offset)
      return { total, rows: ids.map((id) => scanOf(byId.get(id) as ScanRow)) }
    },

    /** Counted scans a second over an hour, the last of them `last` (whole seconds since 1970). */
    lastHour(within: Within, last: number): number[] {
      const owner = scopeOwner(database, within)
      return countSteps(scans, owner, (last - LAST_HOUR_SECONDS + 1) * 1000, 1000, LAST_HOUR_SECONDS)
    },

    /** Counted scans of a workspace a minute over an hour, the last of them `last`: whole minutes since 1970. */
    pulse(workspaceId: number, last: number): number[] {
      return countSteps(scans, scopeOwner(database, { workspaceId }), (last - 59) * 60_000, 60_000, 60)
    },
  }
}
