import { type Span } from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import type { QuarterCount } from '@flimbo/core/results'
import type { Scope } from '@flimbo/core/scans'

/** A scope, narrowed to some of its codes where `codeIds` says which. */
export type Within = Scope & { readonly codeIds?: readonly number[] | undefined }

/** The SQL condition on `codes` that a scope stands for, and its value. */
export function scopeCondition(scope: Within): { condition: string; value: number | string } {
  if (scope.codeIds !== undefined)
    return { condition: 'id IN (SELECT value FROM json_each(?))', value: JSON.stringify(scope.codeIds) }
  if (scope.codeId !== undefined) return { condition: 'id = ?', value: scope.codeId }
  if (scope.routeId !== undefined) return { condition: 'routeId = ?', value: scope.routeId }
  return { condition: 'campaignId = ?', value: scope.campaignId ?? 0 }
}

/** Counted scans of a scope, a quarter of an hour each, in ascending order; empty quarters left out. */
export function quarters(database: Sqlite.Database) {
  return (scope: Within, { start, end }: Span): QuarterCount[] => {
    const { condition, value } = scopeCondition(scope)
    return database
      .prepare(
        `SELECT at / 900000 AS quarter, count(*) AS scans, sum(isUnique) AS uniques FROM scans
        WHERE apart IS NULL AND codeId IN (SELECT id FROM codes WHERE ${condition}) AND at >= ? AND at < ?
        GROUP BY 1 ORDER BY 1`,
      )
      .all(value, start, end) as QuarterCount[]
  }
}
