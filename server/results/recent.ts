import type Sqlite from 'better-sqlite3'
import { buckets, countInto, dayIn, shiftDay, spanOfDays } from '@flimbo/core/results'
import { quarters } from './quarters.ts'

/** Counted scans a day of each campaign, over the last `days` days of its zone, the current day last. */
export function recent(database: Sqlite.Database) {
  const count = quarters(database)
  return (campaigns: readonly { id: number; zone: string }[], days: number, now: number): Map<number, number[]> =>
    new Map(campaigns.map(({ id, zone }) => {
      const today = dayIn(zone, now)
      const span = spanOfDays(zone, shiftDay(today, 1 - days), today)
      return [id, countInto(buckets(zone, span, 'day'), count({ campaignId: id }, span)).map((bucket) => bucket.scans)]
    }))
}
