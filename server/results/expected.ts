import type Sqlite from 'better-sqlite3'
import { expectedDays, type ExpectedDay } from '@flimbo/core/unusual'
import { buckets, dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import type { FactStore } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { apartRequests } from './apartRequests.ts'
import { codeRows } from './codeRows.ts'
import { countBuckets } from './quarters.ts'
import { codesOwners } from './questionCount.ts'
import { scopeOwner, type Within } from './scope.ts'

/** Days before the first that is asked for which its forecast knows: weeks of its season, and of forecasts before it. */
const KNOWN_DAYS = 112

/** What days are expected to bring, and what programs asked for. */
export function expectedCounts(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  return {
    /** Days of a zone, both included; those of which too little is known are left out, as is what lies ahead of tomorrow. */
    expectedDays(
      within: Within,
      zone: string,
      { from, to }: { readonly from: string; readonly to: string },
      minute: number,
    ): ExpectedDay[] {
      const today = dayIn(zone, minute * 60_000)
      const last = to < today ? to : today
      if (last < from) return []
      const first = shiftDay(from, -KNOWN_DAYS)
      const spans = buckets(zone, spanOfDays(zone, first, last), 'day')
      const counts = countBuckets([...scans.parts()], scopeOwner(database, within), spans)
      const forecasts = expectedDays(counts.map((bucket) => bucket.scans))
      return spans.flatMap(({ start }, i): ExpectedDay[] => {
        const forecast = i < KNOWN_DAYS ? null : forecasts[i]
        if (!forecast) return []
        const { expected, low, high } = forecast
        return [{ day: dayIn(zone, start), expected, low, high }]
      })
    },

    /** Requests of crawlers a day, over the last `days` days of a zone, the last one today's so far. */
    crawlerDays(within: Within, zone: string, days: number, minute: number): number[] {
      const today = dayIn(zone, minute * 60_000)
      const owners = codesOwners(codeRows(database, within), within)
      const parts = [...scans.parts()]
      return buckets(zone, spanOfDays(zone, shiftDay(today, 1 - days), today), 'day').map(
        (span) => apartRequests(parts, owners, span).find(({ kind }) => kind === 'crawler')?.requests ?? 0,
      )
    },
  }
}
