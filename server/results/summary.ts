import type Sqlite from 'better-sqlite3'
import { addDimension, type DimensionValue, type Tallied } from '@flimbo/core/figures'
import type { ResultsSummary } from '@flimbo/core/results'
import type { Apart } from '@flimbo/core/scans'
import { spanOfDays } from '@flimbo/core/time'
import { EVER, eachTotal, type FactStore } from '../figures/index.ts'
import { readWay, type ScanDimension } from '../scans/queries.ts'
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
      marks: marksOf(scope, { zone, from, to }, workspaceId),
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
