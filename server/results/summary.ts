import type Sqlite from 'better-sqlite3'
import { addDimension, type DimensionValue, type Tallied } from '@flimbo/core/figures'
import type { DestinationChange, ResultsSummary } from '@flimbo/core/results'
import type { Apart } from '@flimbo/core/scans'
import { spanOfDays, type Span } from '@flimbo/core/time'
import { EVER, eachTotal, type FactStore } from '../figures/index.ts'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import { codeRows } from './codeRows.ts'
import { codesOwners } from './questionCount.ts'
import { scopeCondition, type Within } from './scope.ts'

/** Whose summary is asked for: days of a zone, both included. */
export type SummaryQuestion = Within & { readonly zone: string; readonly from: string; readonly to: string }

interface ChangeRow {
  at: number
  routeId: number
  routeName: string
  by: string
  was: string
  is: string
}
/** The latest so many changes of destination are named. */
const CHANGES_MAX = 200

/** What there is to say of a scope beside its figures: all it ever came to, what is kept apart, and what was changed. */
export function summary(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  function changes(scope: Within, span: Span): DestinationChange[] {
    const { condition, value } = scopeCondition(scope)
    const rows = database
      .prepare(
        `SELECT v.at, v.subjectId AS routeId, r.name AS routeName, p.name AS "by",
          v."before" ->> 'destination' AS was, v."after" ->> 'destination' AS "is"
        FROM revisions v JOIN routes r ON r.id = v.subjectId JOIN people p ON p.id = v.personId
        WHERE v."of" = 'route' AND v.subjectId IN (SELECT routeId FROM codes WHERE ${condition})
          AND v."before" IS NOT NULL AND v.at >= ? AND v.at < ? AND was IS NOT "is"
        ORDER BY v.at DESC LIMIT ${String(CHANGES_MAX)}`,
      )
      .all(value, span.start, span.end) as ChangeRow[]
    return rows.reverse()
  }

  return ({ zone, from, to, ...scope }: SummaryQuestion): Omit<ResultsSummary, 'zone' | 'rowsSince'> => {
    const span = spanOfDays(zone, from, to)
    const ever = { scans: 0, uniques: 0, lastAt: -1 }
    const ways: Tallied<DimensionValue> = new Map()
    const owners = codesOwners(codeRows(database, scope), scope)
    for (const part of scans.parts())
      for (const owner of owners) {
        eachTotal(part, owner.codes, EVER, (_code, count, uniques, lastAt) => {
          ever.scans += count
          ever.uniques += uniques
          ever.lastAt = Math.max(ever.lastAt, lastAt)
        })
        const sums = part.sums(owner, span)
        if (sums) addDimension(ways, part.values.way, sums.dimensions.way)
      }
    return {
      ever: { ...ever, lastAt: ever.lastAt < 0 ? null : ever.lastAt },
      apart: apartOf(ways),
      changes: changes(scope, span),
    }
  }
}

/** Requests that are in no other figure, by why; the most frequent first. */
function apartOf(ways: Tallied<DimensionValue>): ResultsSummary['apart'] {
  const kinds = new Map<Apart, number>()
  for (const [way, { count }] of ways) {
    const { apart } = readWay(String(way))
    if (apart !== null) kinds.set(apart, (kinds.get(apart) ?? 0) + count)
  }
  return [...kinds].map(([kind, requests]) => ({ kind, requests })).sort((a, b) => b.requests - a.requests)
}
