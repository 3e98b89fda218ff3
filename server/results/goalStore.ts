import type Sqlite from 'better-sqlite3'
import type { Span } from '@flimbo/core/time'

/** Texts that many have in common, each kept once. */
export interface GoalPlace {
  readonly country: string
  readonly region: string
  readonly city: string
}
export interface GoalAgent {
  readonly device: string
  readonly system: string
}

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

const BATCH = 20_000
const none = (): GoalColumns => ({
  ...{ workspaceId: [], at: [], goalId: [], codeId: [], scanId: [], routeId: [], valueMilli: [] },
  ...{ place: [], agent: [] },
})

/** Gives things that are equal the same number. */
function numbering<T>() {
  const list: T[] = []
  const byKey = new Map<string, number>()
  return {
    list,
    numberOf(key: string, make: () => T): number {
      const known = byKey.get(key)
      if (known !== undefined) return known
      byKey.set(key, list.length)
      return list.push(make()) - 1
    },
  }
}

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
  let places = numbering<GoalPlace>()
  let agents = numbering<GoalAgent>()
  let last = 0
  let proof: unknown

  function refresh(): void {
    const end = (newest.get() as number | null) ?? 0
    if (last > 0 && proofOf.get(last) !== proof) {
      columns = none()
      places = numbering()
      agents = numbering()
      last = 0
    }
    while (last < end) {
      const rows = after.all(last) as Row[]
      for (const row of rows) add(row)
      // Those that are kept apart are passed over.
      last = rows.length === BATCH ? (rows.at(-1)?.[0] ?? end) : end
    }
    proof = last > 0 ? proofOf.get(last) : undefined
  }

  function add(row: Row): void {
    const [, workspaceId, at, goalId, codeId, scanId, routeId, valueMilli, country, region, city] = row
    const [device, system] = row.slice(11) as [string, string]
    columns.workspaceId.push(workspaceId)
    columns.at.push(at)
    columns.goalId.push(goalId)
    columns.codeId.push(codeId)
    columns.scanId.push(scanId)
    columns.routeId.push(routeId)
    columns.valueMilli.push(valueMilli)
    columns.place.push(places.numberOf(`${country}\t${region}\t${city}`, () => ({ country, region, city })))
    columns.agent.push(agents.numberOf(`${device}\t${system}`, () => ({ device, system })))
  }

  return {
    /** Calls back for each of some codes' in a span, with its place in the columns. */
    each(
      workspaceId: number,
      codes: ReadonlySet<number>,
      { start, end }: Span,
      visit: (columns: GoalColumns, i: number) => void,
    ): void {
      refresh()
      const { at, workspaceId: owner, codeId } = columns
      for (let i = 0; i < at.length; i++) {
        const moment = at[i] ?? 0
        if (moment >= start && moment < end && owner[i] === workspaceId && codes.has(codeId[i] ?? 0))
          visit(columns, i)
      }
    },
    placeOf: (number: number): GoalPlace => places.list[number] ?? { country: '', region: '', city: '' },
    agentOf: (number: number): GoalAgent => agents.list[number] ?? { device: '', system: '' },
  }
}
