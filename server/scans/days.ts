import { dayIn, shiftDay } from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import { retryWhenLockedSync } from '../sqlite/index.ts'

/** What is kept of a day's visitors, each row with its workspace and day. */
const TABLES = ['visits', 'taken', 'salts'] as const
/** So many rows are destroyed in one transaction: no scan waits for more. */
const AT_ONCE = 500

interface Zoned {
  id: number
  zone: string
}

/**
 * Destroys what was kept of visitors on days that are over in each workspace's zone: who was seen, who took a
 * place, and the salt, last. Days of a clock that was far ahead go too. The connection overwrites what it deletes;
 * the log that may still hold it is for `logKeeper`.
 *
 * @param pause called between transactions
 * @returns how many rows there were
 */
export function destroyPastDays(
  database: Sqlite.Database,
  now: number,
  pause: () => void = () => undefined,
): number {
  const workspaces = database.prepare('SELECT id, zone FROM workspaces').all() as Zoned[]
  let destroyed = 0
  for (const { id, zone } of workspaces) {
    const today = dayIn(zone, now)
    // A clock that was set back by an hour may find the day of tomorrow, which is then the one in use.
    const last = shiftDay(today, 1)
    for (const table of TABLES) {
      const some = database.prepare(
        `DELETE FROM ${table} WHERE workspaceId = ? AND (day < ? OR day > ?) LIMIT ${String(AT_ONCE)}`,
      )
      const find = database.prepare(
        `SELECT 1 FROM ${table} WHERE workspaceId = ? AND (day < ? OR day > ?) LIMIT 1`,
      )
      while (find.get(id, today, last)) {
        destroyed += retryWhenLockedSync(() => some.run(id, today, last)).changes
        pause()
      }
    }
  }
  return destroyed
}
