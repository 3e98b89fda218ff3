import type Sqlite from 'better-sqlite3'

/** How many scans a limited route has let through, as the database has it. */
export interface LimitCount {
  readonly total: number
  /** The last day on which it let one through, in the zone of its limits, and how many on that day. */
  readonly day: string
  readonly today: number
}

/** Why there was nothing left to take, with what is taken. */
export interface NoneLeft extends LimitCount {
  readonly why: 'full' | 'full-today'
}

interface LimitRow extends LimitCount {
  maxTotal: number | null
  maxDaily: number | null
}

/** What is stored of limits, to be read. */
export function storedLimits(database: Sqlite.Database) {
  const limit = database.prepare('SELECT total, day, today, maxTotal, maxDaily FROM limits WHERE routeId = ?')
  const marked = database.prepare(
    'SELECT 1 FROM taken WHERE workspaceId = ? AND day = ? AND routeId = ? AND mark = ?',
  )
  const find = (routeId: number) => limit.get(routeId) as LimitRow | undefined
  return {
    find,
    /** Counts of a route; null where nothing limits it. */
    countOf: (routeId: number): LimitCount | null => {
      const row = find(routeId)
      return row ? { total: row.total, day: row.day, today: row.today } : null
    },
    isMarked: (workspaceId: number, day: string, routeId: number, mark: string) =>
      marked.get(workspaceId, day, routeId, mark) !== undefined,
  }
}

/**
 * Takes one scan from the limit of a route, within the transaction that stores the scan: whichever front door
 * commits first has it, and no more are let through than there are. Where the limit was lifted meanwhile, nothing
 * is taken and nothing refused.
 */
export function limitTaker(database: Sqlite.Database) {
  const mark = database.prepare(
    'INSERT OR IGNORE INTO taken (workspaceId, day, routeId, mark) VALUES (?, ?, ?, ?)',
  )
  const unmark = database.prepare(
    'DELETE FROM taken WHERE workspaceId = ? AND day = ? AND routeId = ? AND mark = ?',
  )
  // A scan that comes late, from before midnight, counts to the day that has begun.
  const take =
    database.prepare(`UPDATE limits SET total = total + 1, today = CASE WHEN day < @day THEN 1 ELSE today + 1 END, day = max(day, @day)
    WHERE routeId = @routeId AND (maxTotal IS NULL OR total < maxTotal) AND (maxDaily IS NULL OR day < @day OR today < maxDaily)`)
  const { countOf, find } = storedLimits(database)

  return {
    countOf,
    /** @returns null where the scan is let through, or else what stands in its way */
    take(
      workspaceId: number,
      visitDay: string,
      routeId: number,
      day: string,
      taker: string,
    ): NoneLeft | null {
      if (taker !== '' && mark.run(workspaceId, visitDay, routeId, taker).changes === 0) return null
      if (take.run({ routeId, day }).changes === 1) return null
      const row = find(routeId)
      if (!row) return null
      if (taker !== '') unmark.run(workspaceId, visitDay, routeId, taker)
      const { total, today, maxTotal } = row
      return {
        total,
        today,
        day: row.day,
        why: maxTotal !== null && total >= maxTotal ? 'full' : 'full-today',
      }
    },
  }
}
