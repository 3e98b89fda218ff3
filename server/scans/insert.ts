import type Sqlite from 'better-sqlite3'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import { PACKED_WIDTH, type OutboxEntry, type Packed } from './record.ts'
import { limitTaker, type LimitCount, type NoneLeft } from './take.ts'

/** Remembers the row numbers of a small table whose rows are never changed, up to a bound. */
function rowNumbers(insert: Sqlite.Statement, find: Sqlite.Statement, max = 50_000) {
  const known = new Map<string, number>()
  const numberOf = (values: Packed[]): number => {
    const key = values.join('\u0000')
    const there = known.get(key)
    if (there !== undefined) return there
    insert.run(...values)
    const row = find.get(...values) as { id: number }
    if (known.size >= max) known.clear()
    known.set(key, row.id)
    return row.id
  }
  // A rolled-back transaction takes its new rows with it; what was remembered of them must go too.
  return {
    numberOf,
    forget: () => {
      known.clear()
    },
  }
}

/** What became of a group of scans. */
export interface Stored {
  /** Scans that found their route's limit used up, by their place in the group: nothing of them was stored. */
  readonly refused: readonly (readonly [place: number, none: NoneLeft])[]
  /** Those that were the first of their visitor at their code that day, by their place in the group. */
  readonly uniques: readonly number[]
  /** What limited routes have let through by now, of those that the group was for. */
  readonly counts: readonly (readonly [routeId: number, count: LimitCount])[]
}

/** Writes packed scans into an open database, in one transaction each call. */
export function scanInserter(database: Sqlite.Database) {
  const places = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO places (country, region, city, latitude, longitude) VALUES (?, ?, ?, ?, ?)',
    ),
    database.prepare(`SELECT id FROM places WHERE country = ? AND region = ? AND city = ?
      AND ifnull(latitude, 999) = ifnull(?, 999) AND ifnull(longitude, 999) = ifnull(?, 999)`),
  )
  const agents = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO agents (device, system, systemVersion, browser) VALUES (?, ?, ?, ?)',
    ),
    database.prepare(
      'SELECT id FROM agents WHERE device = ? AND system = ? AND systemVersion = ? AND browser = ?',
    ),
  )
  const limits = limitTaker(database)
  const see = database.prepare(
    'INSERT OR IGNORE INTO visits (workspaceId, day, codeId, visitor) VALUES (?, ?, ?, ?)',
  )
  const insert = database.prepare(`INSERT INTO scans
    (at, codeId, routeId, revisionId, outcome, apart, isUnique, placeId, agentId, language, referrer, visitor, exit, variant)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`)

  const post = database.prepare(
    'INSERT INTO outbox (workspaceId, kind, topic, at, isTest, payload, nextAt) VALUES (?, ?, ?, ?, ?, ?, ?)',
  )
  const postAll = (text: string, workspaceId: Packed, at: Packed, apart: Packed) => {
    // Written by `pack`, on the other side of the thread.
    for (const { kind, topic, payload } of JSON.parse(text) as OutboxEntry[])
      post.run(workspaceId, kind, topic, at, apart === 'test' ? 1 : 0, JSON.stringify(payload), at)
  }

  const insertAll = database.transaction((packed: readonly Packed[]): Stored => {
    const refused: [number, NoneLeft][] = []
    const limited = new Set<number>()
    const uniques: number[] = []
    for (let i = 0; i < packed.length; i += PACKED_WIDTH) {
      const [at, workspaceId, day, codeId, routeId, revisionId, outcome, apart] = packed.slice(i, i + 8)
      const [language, referrer, visitor, exit, variant, entries, takeDay, mark] = packed.slice(
        i + 17,
        i + PACKED_WIDTH,
      )
      if (typeof takeDay === 'string') {
        limited.add(Number(routeId))
        const none = limits.take(Number(workspaceId), String(day), Number(routeId), takeDay, String(mark))
        if (none) {
          refused.push([i / PACKED_WIDTH, none])
          continue
        }
      }
      const placeId = places.numberOf(packed.slice(i + 8, i + 13))
      const agentId = agents.numberOf(packed.slice(i + 13, i + 17))
      const isUnique = apart === null ? see.run(workspaceId, day, codeId, visitor).changes : 0
      if (isUnique === 1) uniques.push(i / PACKED_WIDTH)
      insert.run(
        at,
        codeId,
        routeId,
        revisionId,
        outcome,
        apart,
        isUnique,
        placeId,
        agentId,
        language,
        referrer,
        visitor,
        exit,
        variant,
      )
      if (typeof entries === 'string') postAll(entries, workspaceId ?? 0, at ?? 0, apart ?? null)
    }
    const counts = [...limited].flatMap((routeId) => {
      const count = limits.countOf(routeId)
      return count ? [[routeId, count] as const] : []
    })
    return { refused, uniques, counts }
  })

  return (packed: readonly Packed[]): Stored => {
    try {
      return retryWhenLockedSync(() => insertAll.immediate(packed))
    } catch (error) {
      places.forget()
      agents.forget()
      throw error
    }
  }
}
