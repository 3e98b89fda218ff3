import type Sqlite from 'better-sqlite3'
import { NO_SCANS, type Tally } from '@flimbo/core/scans'
import { EVER, eachTotal, type FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'

/** By what scans are summed, and among which codes. */
export type TallyBy = 'code' | 'route' | 'campaign'
export type TallyAmong =
  | { readonly codes: readonly number[] }
  | { readonly route: number }
  | { readonly campaign: number }
  | { readonly workspace: number }

const KEY = { code: 'c.id', route: 'c.routeId', campaign: 'c.campaignId' } as const

const AMONG = {
  codes: 'c.id IN (SELECT value FROM json_each(?))',
  route: 'c.routeId = ?',
  campaign: 'c.campaignId = ?',
  workspace: 'c.campaignId IN (SELECT id FROM campaigns WHERE workspaceId = ?)',
} as const

interface Sum {
  scans: number
  uniques: number
  lastAt: number
}

/**
 * Counts of scans. Every count on every screen comes from the same facts, so they agree to the unit: a scan belongs
 * to its code, and to the route and the campaign its code is in now.
 */
export function tallies(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  return (by: TallyBy, among: TallyAmong): Map<number, Tally> => {
    const [kind, value] = Object.entries(among)[0] as [keyof typeof AMONG, number | readonly number[]]
    const keys = new Map(
      database
        .prepare(`SELECT c.id, ${KEY[by]} FROM codes c WHERE ${AMONG[kind]}`)
        .raw()
        .all(typeof value === 'number' ? value : JSON.stringify(value)) as [code: number, key: number][],
    )
    const sums = new Map<number, Sum>()
    const sumOf = new Map<number, Sum>()
    for (const [code, key] of keys) {
      const sum = sums.get(key) ?? { scans: 0, uniques: 0, lastAt: -1 }
      sums.set(key, sum)
      sumOf.set(code, sum)
    }
    for (const part of scans.parts())
      eachTotal(part, 'all', EVER, (code, count, uniques, lastAt) => {
        const sum = sumOf.get(code)
        if (!sum) return
        sum.scans += count
        sum.uniques += uniques
        if (lastAt > sum.lastAt) sum.lastAt = lastAt
      })
    // What has no scans is in none.
    return new Map([...sums].filter(([, { scans: n }]) => n > 0))
  }
}

/** A tally out of several; nothing where there are none. */
export function tallyOf(found: ReadonlyMap<number, Tally>, key: number): Tally {
  return found.get(key) ?? NO_SCANS
}
