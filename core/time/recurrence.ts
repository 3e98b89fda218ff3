import { dayIn, startOfDay } from './calendar.ts'
import { momentOf } from './clock.ts'
import { shiftDay } from './day.ts'

const HOUR_MS = 3_600_000

/** How often something comes: by the hour, or on days by the clock of a zone. */
export type Recurrence =
  | { readonly every: 'hour' }
  | {
      readonly every: 'day' | 'week' | 'month'
      /** By the clock, as `07:00`. */
      readonly at: string
      /** 1 is Monday (ISO 8601); only weeks look at it. */
      readonly weekday: number
      /** 1 to 28, so that every month has it; only months look at it. */
      readonly monthDay: number
    }

const weekdayOf = (day: string) => ((new Date(`${day}T00:00Z`).getUTCDay() + 6) % 7) + 1

/** The Monday of the week that a day is in: weeks begin on it (ISO 8601). */
export const mondayOf = (day: string): string => shiftDay(day, 1 - weekdayOf(day))
/** The first day of the month that a day is in. */
export const firstOfMonth = (day: string): string => `${day.slice(0, 7)}-01`
/** The first day of the month after that. */
export const firstOfNextMonth = (day: string): string => firstOfMonth(shiftDay(firstOfMonth(day), 31))

/** The first day from a given one on, that one included, on which it comes. */
function firstDayFrom(
  day: string,
  { every, weekday, monthDay }: Exclude<Recurrence, { every: 'hour' }>,
): string {
  if (every === 'day') return day
  if (every === 'week') return shiftDay(day, (weekday - weekdayOf(day) + 7) % 7)
  const inMonth = shiftDay(firstOfMonth(day), monthDay - 1)
  return inMonth >= day ? inMonth : shiftDay(firstOfNextMonth(day), monthDay - 1)
}

/**
 * When something comes next. Where the clock jumps over its time, it comes at the first moment after that; where the clock
 * shows its time twice, at the first of the two.
 *
 * @param now UTC milliseconds
 * @returns UTC milliseconds, later than `now`
 */
export function nextTime(recurrence: Recurrence, zone: string, now: number): number {
  if (recurrence.every === 'hour') {
    // Zones may stand at a quarter of an hour: the hour is that of their clock.
    const start = startOfDay(zone, dayIn(zone, now))
    return start + (Math.floor((now - start) / HOUR_MS) + 1) * HOUR_MS
  }
  const today = dayIn(zone, now)
  const momentOn = (day: string) => momentOf(zone, `${day}T${recurrence.at}`)
  const first = momentOn(firstDayFrom(today, recurrence))
  return first > now ? first : momentOn(firstDayFrom(shiftDay(dayIn(zone, first), 1), recurrence))
}
