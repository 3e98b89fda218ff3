import type Sqlite from 'better-sqlite3'
import { NO_SCANS, type Tally } from '@flimbo/core/scans'

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

/**
 * Counts of scans. Every count on every screen comes from here or from `results`, which reads the same
 * index, so they agree to the unit: a scan belongs to its code, and to the route and the campaign its
 * code is in now.
 */
export function tallies(database: Sqlite.Database) {
  return (by: TallyBy, among: TallyAmong): Map<number, Tally> => {
    const [kind, value] = Object.entries(among)[0] as [keyof typeof AMONG, number | readonly number[]]
    const rows = database
      .prepare(
        `SELECT ${KEY[by]} AS key, count(*) AS scans, sum(s.isUnique) AS uniques, max(s.at) AS lastAt
        FROM codes c JOIN scans s ON s.codeId = c.id AND s.apart IS NULL WHERE ${AMONG[kind]} GROUP BY 1`,
      )
      .all(typeof value === 'number' ? value : JSON.stringify(value)) as (Tally & { key: number })[]
    return new Map(rows.map(({ key, ...tally }) => [key, tally]))
  }
}

/** A tally out of several; nothing where there are none. */
export function tallyOf(found: ReadonlyMap<number, Tally>, key: number): Tally {
  return found.get(key) ?? NO_SCANS
}
