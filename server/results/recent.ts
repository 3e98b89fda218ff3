import { buckets, dayIn, shiftDay, spanOfDays } from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import { countInto } from '@flimbo/core/results'
import { quarters } from './quarters.ts'

/**
 * Counted scans a day of each campaign, over the last `days` days of its zone, the last of them the one that `minute`
 * (whole minutes since 1970) is in: asked twice within a minute, it is one question.
 */
export function recent(database: Sqlite.Database) {
  const count = quarters(database)
  return (
    campaigns: readonly { id: number; zone: string }[],
    days: number,
    minute: number,
  ): Map<number, number[]> =>
    new Map(
      campaigns.map(({ id, zone }) => {
        const today = dayIn(zone, minute * 60_000)
        const span = spanOfDays(zone, shiftDay(today, 1 - days), today)
        return [
          id,
          countInto(buckets(zone, span, 'day'), count({ campaignId: id }, span)).map(
            (bucket) => bucket.scans,
          ),
        ]
      }),
    )
}
