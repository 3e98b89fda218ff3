import type Sqlite from 'better-sqlite3'
import { keptSince } from '@flimbo/core/scans'
import { eachTotal, type FactStore } from '../figures/index.ts'
import type { ScanDimension } from './fact.ts'
import { scanClock } from './folding.ts'

/** Scans before a moment (UTC ms), and how many they are. */
export interface ScansUpTo {
  readonly before: number
  readonly scans: number
}

/** Says which scans of a workspace are folded, and how many have rows. */
export function foldedScans(database: Sqlite.Database, facts: FactStore<ScanDimension>) {
  const today = scanClock(database)
  const folded = database.prepare(
    `SELECT max(before) AS before, sum(facts) AS scans FROM folds WHERE fact = 'scans' AND workspaceId = ?`,
  )
  const codesOf = database
    .prepare('SELECT c.id FROM codes c JOIN campaigns k ON k.id = c.campaignId WHERE k.workspaceId = ?')
    .pluck()
  return {
    /** Those that are folded; null where none are. */
    foldedScans(workspaceId: number): ScansUpTo | null {
      const { before, scans } = folded.get(workspaceId) as { before: number | null; scans: number | null }
      return before === null ? null : { before, scans: scans ?? 0 }
    },
    /** Those with rows that would be folded, were scans kept for so many months. */
    rowsToFold(workspaceId: number, zone: string, months: number, now: number): ScansUpTo {
      const before = keptSince(zone, today(now), months)
      const codes = new Set(codesOf.all(workspaceId) as number[])
      let scans = 0
      for (const part of facts.parts())
        if (part.columns)
          eachTotal(part, codes, { start: -Infinity, end: before }, (_code, count) => {
            scans += count
          })
      return { before, scans }
    },
  }
}
