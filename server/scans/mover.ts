import type Sqlite from 'better-sqlite3'
import { packedVisitor, retryWhenLockedSync, SCANS_VIEW } from '../sqlite/index.ts'
import { commonRows } from './commonRows.ts'
import type { Packed } from './record.ts'

/** So many are moved in one transaction: no scan waits for more. */
const AT_ONCE = 200

interface Before {
  readonly id: number
  readonly at: number
  readonly codeId: number
  readonly routeId: number
  readonly revisionId: number
  readonly outcome: string
  readonly apart: string | null
  readonly isUnique: number
  readonly placeId: number
  readonly agentId: number
  readonly language: string
  readonly referrer: string
  readonly visitor: Packed | Buffer
  readonly exit: string
  readonly variant: string
}

/**
 * Moves scans of before into the table they are kept in now, the oldest first, some at a time, while everything runs.
 * Whatever stops it, each scan is in one of the two.
 */
export function scanMover(database: Sqlite.Database, atOnce = AT_ONCE) {
  const isThere = database.prepare("SELECT 1 FROM sqlite_master WHERE name = 'scans_before'")
  const common = commonRows(database)
  const insert = database.prepare(`INSERT INTO scan_rows
    (id, at, codeId, wayId, isUnique, placeId, agentId, languageId, referrerId, visitor) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`)

  function moveSome(): boolean {
    const oldest = database
      .prepare(
        `SELECT id, at, codeId, routeId, revisionId, outcome, apart, isUnique, placeId, agentId, language, referrer,
          ${packedVisitor('visitor')} AS visitor, exit, variant FROM scans_before ORDER BY id LIMIT ?`,
      )
      .all(atOnce) as Before[]
    for (const { id, at, codeId, routeId, revisionId, outcome, exit, variant, apart, ...scan } of oldest)
      insert.run(
        id,
        at,
        codeId,
        common.wayOf(routeId, revisionId, outcome, exit, variant, apart),
        scan.isUnique,
        scan.placeId,
        scan.agentId,
        common.wordOf(scan.language),
        common.wordOf(scan.referrer),
        scan.visitor,
      )
    database.prepare('DELETE FROM scans_before WHERE id <= ?').run(oldest.at(-1)?.id ?? 0)
    return oldest.length === atOnce
  }
  function finish(): void {
    database.exec('DROP TABLE scans_before')
    database.exec('DROP VIEW scans')
    database.exec(SCANS_VIEW)
  }
  const step = database.transaction((): boolean => {
    if (isThere.get() === undefined) return false
    const hasMore = moveSome()
    if (!hasMore) finish()
    return hasMore
  })

  return {
    /** How many there are still to be moved, counted by their numbers. */
    left(): number {
      if (isThere.get() === undefined) return 0
      const { first, last } = database
        .prepare('SELECT min(id) AS first, max(id) AS last FROM scans_before')
        .get() as { first: number | null; last: number | null }
      return first === null || last === null ? 1 : last - first + 1
    },
    /** Moves some. @returns whether there are more */
    step(): boolean {
      try {
        return retryWhenLockedSync(() => step.immediate())
      } catch (error) {
        common.forget()
        throw error
      }
    },
  }
}
