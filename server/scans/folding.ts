import { randomBytes } from 'node:crypto'
import type Sqlite from 'better-sqlite3'
import type { Step } from '@flimbo/core/figures'
import { KEEP_FOR_EVER, keptSince, retention } from '@flimbo/core/scans'
import { dayIn, QUARTER_MS, shiftDay, startOfDay } from '@flimbo/core/time'
import { foldWriter, type Fact, type FoldPlan, type Packer } from '../figures/index.ts'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import type { ScanDimension } from './fact.ts'
import { SCAN_TABLE, type FactTable } from './foldedRow.ts'

/** The section of the settings in which a workspace says how long it keeps single scans. */
export const RETENTION = 'retention'

/** So many rows go in one transaction: no scan waits for more. */
const AT_ONCE = 200
const DAY_MS = 86_400_000
/** After a fold that failed, as on a full disk, the next is begun so much later. */
const RETRY_MS = 600_000

interface Unfinished {
  readonly id: number
  readonly workspaceId: number
  readonly before: number
  readonly lastId: number
  readonly keptId: number
  readonly clearedTo: number
}

/** Removes rows of facts that are folded, some at a time. */
export function rowClearer(
  database: Sqlite.Database,
  { fact, table }: FactTable = SCAN_TABLE,
  atOnce = AT_ONCE,
) {
  const unfinished = database.prepare(
    `SELECT * FROM folds WHERE fact = '${fact}' AND clearedTo < lastId ORDER BY id LIMIT 1`,
  )
  const find = database
    .prepare(
      `SELECT s.id FROM ${table} s JOIN codes c ON c.id = s.codeId JOIN campaigns k ON k.id = c.campaignId
      WHERE s.id > ? AND s.id <= ? AND s.id <> ? AND s.at < ? AND k.workspaceId = ? ORDER BY s.id LIMIT ?`,
    )
    .pluck()
  const remove = database.prepare(`DELETE FROM ${table} WHERE id IN (SELECT value FROM json_each(?))`)
  const note = database.prepare('UPDATE folds SET clearedTo = ? WHERE id = ?')
  const clear = database.transaction((fold: number, ids: readonly number[], upTo: number) => {
    remove.run(JSON.stringify(ids))
    note.run(upTo, fold)
  })

  /** @returns whether there may be more */
  return (): boolean => {
    const fold = unfinished.get() as Unfinished | undefined
    if (!fold) return false
    // Looked for before anybody has to wait.
    const { clearedTo, lastId, keptId, before, workspaceId } = fold
    const ids = find.all(clearedTo, lastId, keptId, before, workspaceId, atOnce) as number[]
    const upTo = ids.length < atOnce ? lastId : (ids.at(-1) ?? lastId)
    // What held them is overwritten.
    database.pragma('secure_delete = ON')
    retryWhenLockedSync(() => {
      clear.immediate(fold.id, ids, upTo)
    })
    return true
  }
}

/**
 * The moment from which scans are counted back that are kept: a clock that runs ahead does not make them old, none is
 * older than the newest says.
 */
export function scanClock(database: Sqlite.Database): (now: number) => number {
  const newest = database.prepare('SELECT at FROM scan_rows ORDER BY id DESC LIMIT 1').pluck()
  return (now) => Math.min(now, (newest.get() as number | undefined) ?? now)
}

/** Which scans are not to be kept any more, by what the workspaces have decided; null where none are. */
function beforeOf(database: Sqlite.Database, now: number): Map<number, number> {
  const rows = database
    .prepare(
      `SELECT w.id, w.zone, s.value FROM settings s JOIN workspaces w ON w.id = s.workspaceId WHERE s.section = ?`,
    )
    .all(RETENTION) as { id: number; zone: string; value: string }[]
  const before = new Map<number, number>()
  for (const { id, zone, value } of rows) {
    const { data = KEEP_FOR_EVER } = retention.safeParse(JSON.parse(value))
    if (data.months !== null) before.set(id, keptSince(zone, now, data.months))
  }
  return before
}

const QUARTERS_A_DAY = DAY_MS / QUARTER_MS

/** The days of zones, as steps of quarters of an hour; each is worked out once. */
function daysOf() {
  /** By zone and by day of UTC: those of the zone that were met in it, two or three. */
  const zones = new Map<string, Map<number, Step[]>>()

  function dayAt(zone: string, quarter: number): Step {
    const day = dayIn(zone, quarter * QUARTER_MS)
    const next = startOfDay(zone, shiftDay(day, 1))
    return { from: startOfDay(zone, day) / QUARTER_MS, to: next / QUARTER_MS }
  }
  return (zone: string, quarter: number): Step => {
    const days = zones.get(zone) ?? new Map<number, Step[]>()
    zones.set(zone, days)
    const met = days.get(Math.floor(quarter / QUARTERS_A_DAY)) ?? []
    const known = met.find(({ from, to }) => quarter >= from && quarter < to)
    if (known) return known
    const fresh = dayAt(zone, quarter)
    days.set(Math.floor(quarter / QUARTERS_A_DAY), [...met, fresh])
    return fresh
  }
}

/** What of some workspaces is to be folded. */
export function foldPlan<D extends string = ScanDimension>(
  database: Sqlite.Database,
  before: ReadonlyMap<number, number>,
  now: number,
): FoldPlan<D> {
  const homes = new Map<number, { workspaceId: number; zone: string }>()
  const all = database.prepare(
    'SELECT c.id, k.workspaceId, k.zone FROM codes c JOIN campaigns k ON k.id = c.campaignId',
  )
  for (const { id, ...home } of all.iterate() as Iterable<{ id: number; workspaceId: number; zone: string }>)
    homes.set(id, home)
  const dayOf = daysOf()
  return {
    edition: randomBytes(6).toString('hex'),
    at: now,
    before,
    workspaceOf: (code) => homes.get(code)?.workspaceId ?? null,
    stepOf: (code, quarter) => dayOf(homes.get(code)?.zone ?? 'UTC', quarter),
  }
}

/**
 * Folds facts that workspaces do not keep any more, and removes their rows, a little at a time. What happened on pages goes
 * with the scans it belongs to.
 *
 * @param packer packs nothing while a fold is under way
 */
export function factFolder<D extends string>(
  read: Sqlite.Database,
  write: Sqlite.Database,
  packer: Pick<Packer, 'fold'>,
  fact: Fact<D>,
  table: FactTable,
) {
  const clear = rowClearer(write, table)
  const today = scanClock(read)
  let current: Iterator<void, void> | null = null
  /** What was last looked at: on a day, with what the workspaces had decided. */
  let looked = ''
  let notBefore = 0

  /** What is decided, on a day: more may have come to be folded by the next. */
  const stateOf = (before: ReadonlyMap<number, number>, now: number) =>
    JSON.stringify([Math.floor(now / DAY_MS), [...before]])

  function begin(now: number): boolean {
    if (now < notBefore) return false
    const before = beforeOf(read, today(now))
    const state = stateOf(before, now)
    if (state === looked) return false
    looked = state
    if (before.size === 0) return false
    current = packer.fold(foldPlan<D>(read, before, now), foldWriter(write, fact))
    return true
  }

  return {
    isFolding: () => current !== null,
    /** @returns whether there is more to do at once */
    step(now: number): boolean {
      try {
        if (!current) return clear() || begin(now)
        // Decided otherwise meanwhile: what was begun has not happened.
        const isStillDecided = stateOf(beforeOf(read, today(now)), now) === looked
        if (!isStillDecided || current.next().done) current = null
        return true
      } catch (error) {
        current = null
        looked = ''
        notBefore = now + RETRY_MS
        throw error
      }
    },
  }
}
