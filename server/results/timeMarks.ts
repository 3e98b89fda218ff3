import type Sqlite from 'better-sqlite3'
import type { TimeMark } from '@flimbo/core/results'
import { spanOfDays, startOfDay } from '@flimbo/core/time'
import { scopeCondition, type Within } from './scope.ts'

/** Days of a zone, both included. */
interface Days {
  readonly zone: string
  readonly from: string
  readonly to: string
}
/** The latest so many of each kind are shown. */
const MARKS_MAX = 200

interface NoteRow extends Omit<TimeMark, 'at' | 'kind'> {
  readonly day: string
}

/** Moments that may explain the figures of a scope: what was changed, what went to print, and what people noted. */
export function timeMarks(database: Sqlite.Database) {
  function revisions(scope: Within, { start, end }: { start: number; end: number }): TimeMark[] {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT CASE WHEN was IS NOT "is" THEN 'destination' ELSE 'lanes' END AS kind, at, id, "by", name,
          CASE WHEN was IS NOT "is" THEN "is" ELSE '' END AS detail
        FROM (
          SELECT v.at, v.id, p.name AS "by", r.name, v."before" ->> 'destination' AS was, v."after" ->> 'destination' AS "is",
            v."before" -> 'rules' AS oldRules, v."after" -> 'rules' AS newRules
          FROM revisions v JOIN routes r ON r.id = v.subjectId JOIN people p ON p.id = v.personId
          WHERE v."of" = 'route' AND v.subjectId IN (SELECT routeId FROM codes WHERE ${condition})
            AND v."before" IS NOT NULL AND v.at >= ? AND v.at < ?)
        WHERE was IS NOT "is" OR oldRules IS NOT newRules
        ORDER BY at DESC, id DESC LIMIT ${String(MARKS_MAX)}`,
      )
      .all(value, start, end) as TimeMark[]
  }

  function releases(scope: Within, { start, end }: { start: number; end: number }): TimeMark[] {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT 'release' AS kind, r.at, r.id, p.name AS "by", r.name, 'release ' || r.number AS detail
        FROM releases r JOIN people p ON p.id = r.personId
        WHERE r.codeId IN (SELECT codes.id FROM codes WHERE ${condition}) AND r.at >= ? AND r.at < ?
        ORDER BY r.at DESC, r.id DESC LIMIT ${String(MARKS_MAX)}`,
      )
      .all(value, start, end) as TimeMark[]
  }

  /** Notes of all campaigns, and of those that the scope has codes in, or is. */
  function notes(scope: Within, { zone, from, to }: Days, workspaceId: number): TimeMark[] {
    const { condition, value } = scopeCondition(scope)
    const rows = database
      .prepare(
        `SELECT n.id, n.day, p.name AS "by", n.text AS name, '' AS detail
        FROM day_notes n JOIN people p ON p.id = n.personId
        WHERE n.workspaceId = ? AND n.day >= ? AND n.day <= ? AND (n.campaignId IS NULL OR n.campaignId = ?
          OR n.campaignId IN (SELECT campaignId FROM codes WHERE ${condition}))
        ORDER BY n.day DESC, n.id DESC LIMIT ${String(MARKS_MAX)}`,
      )
      .all(workspaceId, from, to, scope.campaignId ?? 0, value) as NoteRow[]
    return rows.map(({ day, ...note }) => ({ kind: 'note', ...note, at: startOfDay(zone, day) }))
  }

  return (scope: Within, days: Days, workspaceId: number): TimeMark[] => {
    const span = spanOfDays(days.zone, days.from, days.to)
    return [...revisions(scope, span), ...releases(scope, span), ...notes(scope, days, workspaceId)]
      .sort((a, b) => b.at - a.at)
      .slice(0, MARKS_MAX)
      .reverse()
  }
}
