import type Sqlite from 'better-sqlite3'
import { LRUCache } from 'lru-cache'

const REMEMBERED = 100_000
const ASKED_MS = 10 * 60_000

/**
 * Knows who was seen at a code today. Scans that wait for the disk are known too, within bounded memory; and
 * whoever was asked something on the first scan of the day still is on that scan when the answer comes.
 */
export function seenToday(database: Sqlite.Database) {
  const find = database.prepare(
    'SELECT 1 FROM visits WHERE workspaceId = ? AND day = ? AND codeId = ? AND visitor = ?',
  )
  /** Scans that are waiting for the disk, by how many of the same visitor there are. */
  const waiting = new Map<string, number>()
  const lately = new LRUCache<string, true>({ max: REMEMBERED })
  const askedFirst = new LRUCache<string, true>({ max: REMEMBERED, ttl: ASKED_MS })
  const keyOf = (day: string, codeId: number, visitor: string) => `${day} ${String(codeId)} ${visitor}`
  return {
    isRepeat(workspaceId: number, day: string, codeId: number, visitor: string, onward: boolean): boolean {
      const key = keyOf(day, codeId, visitor)
      if (onward && askedFirst.has(key)) return false
      return waiting.has(key) || lately.has(key) || find.get(workspaceId, day, codeId, visitor) !== undefined
    },
    /** Notes a scan that is being stored. @returns what is to be called once it is, or is not: then it was never seen */
    now(day: string, codeId: number, visitor: string, isAskedFirst: boolean): (stored: boolean) => void {
      const key = keyOf(day, codeId, visitor)
      waiting.set(key, (waiting.get(key) ?? 0) + 1)
      return (stored) => {
        const others = (waiting.get(key) ?? 1) - 1
        if (others > 0) waiting.set(key, others)
        else waiting.delete(key)
        if (stored) lately.set(key, true)
        if (stored && isAskedFirst) askedFirst.set(key, true)
      }
    },
  }
}
export type SeenToday = ReturnType<typeof seenToday>
