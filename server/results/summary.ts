import type Sqlite from 'better-sqlite3'
import type { ResultsSummary } from '@flimbo/core/results'
import { spanOfDays } from '@flimbo/core/time'
import { EVER, eachTotal, type FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { apartRequests } from './apartRequests.ts'
import { codeRows } from './codeRows.ts'
import { codesOwners } from './questionCount.ts'
import type { Within } from './scope.ts'
import { timeMarks } from './timeMarks.ts'

/** Whose summary is asked for: days of a zone, both included. */
export type SummaryQuestion = Within & {
  readonly forWorkspace: number
  readonly zone: string
  readonly from: string
  readonly to: string
}

/** What there is to say of a scope beside its figures: all it ever came to, what is kept apart, and what was changed. */
export function summary(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const marksOf = timeMarks(database)
  return ({
    forWorkspace: workspaceId,
    zone,
    from,
    to,
    ...scope
  }: SummaryQuestion): Omit<ResultsSummary, 'zone' | 'rowsSince'> => {
    const span = spanOfDays(zone, from, to)
    const ever = { scans: 0, uniques: 0, lastAt: -1 }
    const owners = codesOwners(codeRows(database, scope), scope)
    const parts = [...scans.parts()]
    for (const part of parts)
      for (const owner of owners)
        eachTotal(part, owner.codes, EVER, (_code, count, uniques, lastAt) => {
          ever.scans += count
          ever.uniques += uniques
          ever.lastAt = Math.max(ever.lastAt, lastAt)
        })
    return {
      ever: { ...ever, lastAt: ever.lastAt < 0 ? null : ever.lastAt },
      apart: apartRequests(parts, owners, span),
      marks: marksOf(scope, { zone, from, to }, workspaceId),
    }
  }
}
