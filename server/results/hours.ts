import { LRUCache } from 'lru-cache'
import { DAY_QUARTERS, hoursOfWeek } from '@flimbo/core/dimensions'
import { QUARTER_MS } from '@flimbo/core/time'

/** The hours of so many zones are remembered: some megabytes each. */
const ZONES = 4
/** No day that can be asked for is later. */
const LAST_QUARTER = Date.UTC(2202, 0) / QUARTER_MS
const UNKNOWN = 0
const known = new LRUCache<string, Uint8Array>({ max: ZONES })

/** Tells the hour of the week (0 to 167, from Monday) that quarters of an hour since 1970 lie in. */
export type QuarterHours = (quarter: number) => number

/** The hours of the week of a zone, each day worked out once. */
export function quarterHours(zone: string): QuarterHours {
  // One more than the hour, so that nothing stands for what was not asked yet.
  const hours = known.get(zone) ?? new Uint8Array(LAST_QUARTER)
  known.set(zone, hours)
  return (quarter) => {
    const there = hours[quarter] ?? UNKNOWN
    if (there !== UNKNOWN) return there - 1
    const day = Math.floor(quarter / DAY_QUARTERS)
    const own = hoursOfWeek(zone, day)
    for (const [i, hour] of own.entries()) hours[day * DAY_QUARTERS + i] = hour + 1
    return own[quarter - day * DAY_QUARTERS] ?? 0
  }
}
