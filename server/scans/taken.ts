import type Sqlite from 'better-sqlite3'
import { LRUCache } from 'lru-cache'
import { LET_THROUGH } from '../results/index.ts'

/** Counts a route's stored scans between two moments that were let through. */
export function countLetThrough(database: Sqlite.Database): (routeId: number, from: number, before: number) => number {
  const count = database.prepare(`SELECT count(*) AS scans FROM scans WHERE routeId = ? AND at >= ? AND at < ? AND ${LET_THROUGH}`)
  return (routeId, from, before) => (count.get(routeId, from, before) as { scans: number }).scans
}

const REMEMBERED = 100_000
const ASKED_MS = 10 * 60_000

/**
 * Knows who was seen at a code today. Scans that wait for the disk are known too, within bounded memory; and
 * whoever was asked something on the first scan of the day still is on that scan when the answer comes.
 */
export function seenToday(database: Sqlite.Database) {
  const find = database.prepare('SELECT 1 FROM visits WHERE workspaceId = ? AND day = ? AND codeId = ? AND visitor = ?')
  const lately = new LRUCache<string, true>({ max: REMEMBERED })
  const askedFirst = new LRUCache<string, true>({ max: REMEMBERED, ttl: ASKED_MS })
  const keyOf = (day: string, codeId: number, visitor: string) => `${day} ${String(codeId)} ${visitor}`
  return {
    isRepeat(workspaceId: number, day: string, codeId: number, visitor: string, onward: boolean): boolean {
      const key = keyOf(day, codeId, visitor)
      if (onward && askedFirst.has(key)) return false
      return lately.has(key) || find.get(workspaceId, day, codeId, visitor) !== undefined
    },
    now(day: string, codeId: number, visitor: string, isAskedFirst: boolean): void {
      const key = keyOf(day, codeId, visitor)
      lately.set(key, true)
      if (isAskedFirst) askedFirst.set(key, true)
    },
  }
}
export type SeenToday = ReturnType<typeof seenToday>
