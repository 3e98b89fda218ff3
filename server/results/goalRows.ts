import type Sqlite from 'better-sqlite3'
import type { GoalEvent, SitePage } from '@flimbo/core/goals'
import { scopeCondition, type Within } from './scope.ts'

/** What came of a goal, people's alone; when it was last reached, in a test too. */
export interface GoalTally {
  readonly goalId: number
  readonly reached: number
  readonly valueMilli: number
  readonly lastAt: number
}

export interface GoalFilter {
  readonly within: Within
  readonly workspaceId: number
  readonly start: number
  readonly end: number
  readonly goalId?: number | undefined
}

const PAGES_MAX = 500
/** Of more views a page's median is that of the first so many: a page of half a million views needs no more. */
const VIEWS_MAX = 500_000

/** What sites reported, for lists. */
export function goalRows(database: Sqlite.Database) {
  const tally = database.prepare(
    `SELECT goalId, sum(apart = '') AS reached, sum(CASE WHEN apart = '' THEN valueMilli ELSE 0 END) AS valueMilli,
      max(at) AS lastAt FROM goal_events WHERE goalId IN (SELECT value FROM json_each(?)) GROUP BY goalId`,
  )
  const lastView = database.prepare('SELECT max(at) FROM site_views WHERE workspaceId = ?').pluck()
  const lastGoal = database.prepare('SELECT max(at) FROM goal_events WHERE workspaceId = ?').pluck()

  return {
    goalTallies: (goalIds: readonly number[]): GoalTally[] =>
      tally.all(JSON.stringify(goalIds)) as GoalTally[],

    /** When a site of a workspace last reported anything; null for never. */
    siteReportedAt(workspaceId: number): number | null {
      const times = [lastView, lastGoal].flatMap((each) => (each.get(workspaceId) as number | null) ?? [])
      return times.length === 0 ? null : Math.max(...times)
    },

    goalEvents(
      { within, workspaceId, start, end, goalId }: GoalFilter,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): { rows: GoalEvent[]; total: number } {
      const { condition, value } = scopeCondition(within)
      const from = `FROM goal_events e JOIN codes ON codes.id = e.codeId JOIN goals g ON g.id = e.goalId
        WHERE e.workspaceId = ? AND e.at >= ? AND e.at < ? AND e.goalId ${goalId === undefined ? '<>' : '='} ? AND ${condition}`
      const values = [workspaceId, start, end, goalId ?? 0, value]
      const rows = database
        .prepare(
          `SELECT e.id, e.at, e.goalId, g.name AS goalName, e.codeId, codes.name AS codeName, e.scanId,
            e.valueMilli / 1000.0 AS value, e.orderName AS "order", e.country, e.city, e.device, nullif(e.apart, '') AS apart
          ${from} ORDER BY e.at ${order}, e.id ${order} LIMIT ? OFFSET ?`,
        )
        .all(...values, limit, offset) as GoalEvent[]
      const total = database
        .prepare(`SELECT count(*) ${from}`)
        .pluck()
        .get(...values) as number
      return { rows, total }
    },

    sitePages({ within, workspaceId, start, end }: GoalFilter): { rows: SitePage[]; rowsTotal: number } {
      const { condition, value } = scopeCondition(within)
      const views = database
        .prepare(
          `SELECT v.page, v.scanId, v.seconds FROM site_views v JOIN codes ON codes.id = v.codeId
          WHERE v.workspaceId = ? AND v.at >= ? AND v.at < ? AND v.apart = '' AND ${condition} LIMIT ${String(VIEWS_MAX)}`,
        )
        .raw()
        .all(workspaceId, start, end, value) as [page: string, scanId: number, seconds: number][]
      const pages = new Map<string, { scans: Set<number>; seconds: number[] }>()
      for (const [page, scanId, seconds] of views) {
        const of = pages.get(page) ?? { scans: new Set<number>(), seconds: [] }
        of.scans.add(scanId)
        of.seconds.push(seconds)
        pages.set(page, of)
      }
      const rows = [...pages]
        .map(([page, { scans, seconds }]): SitePage => {
          const sorted = seconds.sort((a, b) => a - b)
          const medianSeconds = sorted[Math.floor((sorted.length - 1) / 2)] ?? 0
          return { page, views: sorted.length, scans: scans.size, medianSeconds }
        })
        .sort((a, b) => b.views - a.views || (a.page < b.page ? -1 : 1))
      return { rows: rows.slice(0, PAGES_MAX), rowsTotal: rows.length }
    },
  }
}
