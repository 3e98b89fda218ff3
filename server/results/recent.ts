import { buckets, dayIn, shiftDay, spanOfDays, type Span } from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import type { FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { countBuckets } from './quarters.ts'
import { scopeOwner } from './scope.ts'

/**
 * Counted scans a day of each campaign, over the last `days` days of its zone, the last of them the one that `minute`
 * (whole minutes since 1970) is in: asked twice within a minute, it is one question.
 */
export function recent(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  return (
    campaigns: readonly { id: number; zone: string }[],
    days: number,
    minute: number,
  ): Map<number, number[]> => {
    const parts = [...scans.parts()]
    /** The days of a zone, which most campaigns share. */
    const daysOf = new Map<string, Span[]>()
    const spansOf = (zone: string) => {
      const today = dayIn(zone, minute * 60_000)
      const spans =
        daysOf.get(zone) ?? buckets(zone, spanOfDays(zone, shiftDay(today, 1 - days), today), 'day')
      daysOf.set(zone, spans)
      return spans
    }
    return new Map(
      campaigns.map(({ id, zone }) => {
        const counted = countBuckets(parts, scopeOwner(database, { campaignId: id }), spansOf(zone))
        return [id, counted.map((bucket) => bucket.scans)]
      }),
    )
  }
}
