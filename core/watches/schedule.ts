import { dayIn, momentOf, shiftDay, startOfDay } from '../time/index.ts'
import type { WatchEvery } from './watch.ts'

/** The hour, by the campaign's clock, at which summaries of days, weeks and months come. */
const MORNING = 'T07:00'
const HOUR_MS = 3_600_000

export type SummaryEvery = Exclude<WatchEvery, 'once'>

/** Days that a summary is about, both included; of an hour also which. */
export interface SummaryPeriod {
  readonly from: string
  readonly to: string
  /** When the hour began, in UTC ms; null where it is about days. */
  readonly hour: number | null
}

/** Monday of the week that a day is in: weeks begin on it (ISO 8601). */
const mondayOf = (day: string): string => shiftDay(day, -((new Date(`${day}T00:00Z`).getUTCDay() + 6) % 7))
const firstOf = (day: string): string => `${day.slice(0, 7)}-01`

/** The first day of the month after that of a day. */
function nextMonth(day: string): string {
  return firstOf(shiftDay(firstOf(day), 31))
}

function beginningAfter(every: Exclude<SummaryEvery, 'hour'>, day: string): string {
  if (every === 'day') return shiftDay(day, 1)
  return every === 'week' ? shiftDay(mondayOf(day), 7) : nextMonth(day)
}

/**
 * When the next summary comes: at the next full hour, or at seven in the morning of the first day after the period.
 *
 * @param now UTC milliseconds
 * @returns UTC milliseconds, later than `now`
 */
export function nextSummary(every: SummaryEvery, zone: string, now: number): number {
  if (every === 'hour') {
    // Zones may stand at a quarter of an hour: the hour is that of their clock.
    const start = startOfDay(zone, dayIn(zone, now))
    return start + (Math.floor((now - start) / HOUR_MS) + 1) * HOUR_MS
  }
  const today = dayIn(zone, now)
  const isOfToday =
    every === 'day' || (every === 'week' ? mondayOf(today) === today : firstOf(today) === today)
  const thisMorning = momentOf(zone, today + MORNING)
  if (isOfToday && thisMorning > now) return thisMorning
  return momentOf(zone, beginningAfter(every, today) + MORNING)
}

/**
 * What a summary is about that is due at a moment: the hour, day, week or month that had ended by then.
 *
 * @param at UTC milliseconds, as `nextSummary` gave it, or later
 */
export function summaryPeriod(every: SummaryEvery, zone: string, at: number): SummaryPeriod {
  const today = dayIn(zone, at)
  if (every === 'hour') {
    const end = nextSummary('hour', zone, at) - HOUR_MS
    const day = dayIn(zone, end - 1)
    return { from: day, to: day, hour: end - HOUR_MS }
  }
  const beginning = { day: today, week: mondayOf(today), month: firstOf(today) }[every]
  const to = shiftDay(beginning, -1)
  const from = { day: to, week: shiftDay(beginning, -7), month: firstOf(to) }[every]
  return { from, to, hour: null }
}
