import type Sqlite from 'better-sqlite3'
import type { ExitTally } from '@flimbo/core/routing'

import type { EntityManager } from 'typeorm'

/** The SQL condition on `scans` of real ones that got to where they lead: past dates, limits and password. The next step of a scan that was asked something is one, its first is not. */
const LET_THROUGH =
  "(apart IS NULL OR apart = 'onward') AND exit NOT IN ('', 'before', 'after', 'full', 'full-today')"

/** How many scans of a route were let through since a moment (UTC ms), as the caller's transaction sees it. */
export async function countLetThrough(
  manager: EntityManager,
  routeId: number,
  since: number,
): Promise<number> {
  const [found] = await manager.query<{ scans: number }[]>(
    `SELECT count(*) AS scans FROM scans WHERE routeId = ? AND at >= ? AND ${LET_THROUGH}`,
    [routeId, since],
  )
  return found?.scans ?? 0
}

/** By which way real scans left their route. The next step of a scan that was asked something stands for it. */
export function exits(database: Sqlite.Database) {
  const byExit =
    database.prepare(`SELECT exit, variant, count(*) AS scans, sum(isUnique) AS uniques FROM scans
    WHERE routeId = ? AND at >= ? AND at < ? AND (apart IS NULL OR apart = 'onward') AND exit <> '' GROUP BY exit, variant`)
  const letThrough = database
    .prepare(`SELECT at FROM scans WHERE routeId = ? AND at >= ? AND at < ? AND ${LET_THROUGH}`)
    .pluck()
  return {
    exits: (routeId: number, start: number, end: number) => byExit.all(routeId, start, end) as ExitTally[],

    /** Scans let through between each start and the next, the last start being the end. */
    letThroughDaily: (routeId: number, starts: readonly number[]): number[] => {
      const counts = starts.slice(1).map(() => 0)
      let day = 0
      for (const at of (letThrough.all(routeId, starts[0] ?? 0, starts.at(-1) ?? 0) as number[]).sort(
        (a, b) => a - b,
      )) {
        while (at >= (starts[day + 1] ?? Infinity)) day++
        counts[day] = (counts[day] ?? 0) + 1
      }
      return counts
    },
  }
}
