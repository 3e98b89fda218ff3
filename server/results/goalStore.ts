import type Sqlite from 'better-sqlite3'
import type { Span } from '@flimbo/core/time'
import type { ConversionTraits } from './conversions.ts'
import { numbering } from './numbering.ts'

/** Arrivals and goals of people in columns, by their places in the order in which they were stored. */
export interface GoalColumns {
  readonly workspaceId: number[]
  readonly at: number[]
  readonly goalId: number[]
  readonly codeId: number[]
  readonly scanId: number[]
  readonly routeId: number[]
  readonly valueMilli: number[]
  /** Numbers of places and agents. */
  readonly place: number[]
  readonly agent: number[]
}

type Row = [
  ...[id: number, workspaceId: number, at: number, goalId: number, codeId: number, scanId: number],
  ...[routeId: number, valueMilli: number, country: string, region: string, city: string],
  ...[device: string, system: string],
]

/** So many are read at once. */
const BATCH = 2000
const none = (): GoalColumns => ({
  ...{ workspaceId: [], at: [], goalId: [], codeId: [], scanId: [], routeId: [], valueMilli: [] },
  ...{ place: [], agent: [] },
})

/**
 * Arrivals and goals in memory, as their rows never change: only what was added since is read. Where another database was
 * put in its place, it is read anew.
 */
export function goalStore(database: Sqlite.Database) {
  const newest = database.prepare('SELECT max(id) FROM goal_events').pluck()
  const proofOf = database
    .prepare(`SELECT goalId || ' ' || once || ' ' || at FROM goal_events WHERE id = ?`)
    .pluck()
  const after = database
    .prepare(
      `SELECT id, workspaceId, at, goalId, codeId, scanId, routeId, valueMilli, country, region, city, device, system
      FROM goal_events WHERE id > ? AND apart = '' ORDER BY id LIMIT ${String(BATCH)}`,
    )
    .raw()
  let columns = none()
  let places = numbering<ConversionTraits['place']>()
  let agents = numbering<ConversionTraits['agent']>()
  let last = 0
  let proof: unknown

  const placeNumber = (country: string, region: string, city: string) =>
    places.numberOf(`${country}\t${region}\t${city}`, () => ({ country, region, city }))
  const agentNumber = (device: string, system: string) =>
    agents.numberOf(`${device}\t${system}`, () => ({ device, system }))

  function add(row: Row): void {
    const [, workspaceId, at, goalId, codeId, scanId, routeId, valueMilli, country, region, city] = row
    columns.workspaceId.push(workspaceId)
    columns.at.push(at)
    columns.goalId.push(goalId)
    columns.codeId.push(codeId)
    columns.scanId.push(scanId)
    columns.routeId.push(routeId)
    columns.valueMilli.push(valueMilli)
    columns.place.push(placeNumber(country, region, city))
    columns.agent.push(agentNumber(row[11], row[12]))
  }

  function forget(): void {
    columns = none()
    places = numbering()
    agents = numbering()
    last = 0
  }
  function readOn(): boolean {
    const rows = after.all(last) as Row[]
    for (const row of rows) add(row)
    const hasMore = rows.length === BATCH
    // Those after the last one are kept apart: they are passed over.
    last = rows.at(-1)?.[0] ?? last
    if (!hasMore) last = Math.max(last, Number(newest.get() ?? 0))
    proof = last > 0 ? proofOf.get(last) : undefined
    return hasMore
  }

  return {
    placeNumber,
    agentNumber,
    /** Places and agents by their numbers. */
    values: () => ({ place: places.list, agent: agents.list }),

    /** Reads some of what was added. @returns whether there is more */
    readOn,
    /** Reads all that was added. @returns whether this is another database than before, so that nothing that is known holds */
    refresh(): boolean {
      const isOther = last > 0 && proofOf.get(last) !== proof
      if (isOther) forget()
      while (readOn());
      return isOther
    },
    /** The scans that those came of that are read so far. */
    scans: (): readonly number[] => columns.scanId,

    /** Those of some codes in a span, by their places in the columns. */
    choose(
      workspaceId: number,
      codes: ReadonlySet<number>,
      { start, end }: Span,
    ): { readonly columns: GoalColumns; readonly chosen: readonly number[] } {
      const { at, workspaceId: owner, codeId } = columns
      const chosen: number[] = []
      for (let i = 0; i < at.length; i++) {
        const moment = at[i] ?? 0
        if (moment >= start && moment < end && owner[i] === workspaceId && codes.has(codeId[i] ?? 0))
          chosen.push(i)
      }
      return { columns, chosen }
    },
  }
}
