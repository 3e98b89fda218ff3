import { dayIn, firstOfMonth, mondayOf, nextTime, shiftDay } from '../time/index.ts'
import type { WatchEvery } from './watch.ts'

/** The hour, by the campaign's clock, at which summaries of days, weeks and months come. */
const MORNING = '07:00'
const HOUR_MS = 3_600_000

export type SummaryEvery = Exclude<WatchEvery, 'once'>

/** Days that a summary is about, both included; of an hour also which. */
export interface SummaryPeriod {
  readonly from: string
  readonly to: string
  /** When the hour began, in UTC ms; null where it is about days. */
  readonly hour: number | null
}

/**
 * When the next summary comes: at the next full hour, or at seven in the morning of the first day after the period.
 *
 * @param now UTC milliseconds
 * @returns UTC milliseconds, later than `now`
 */
export const nextSummary = (every: SummaryEvery, zone: string, now: number): number =>
  nextTime(every === 'hour' ? { every } : { every, at: MORNING, weekday: 1, monthDay: 1 }, zone, now)

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
  const beginning = { day: today, week: mondayOf(today), month: firstOfMonth(today) }[every]
  const to = shiftDay(beginning, -1)
  const from = { day: to, week: shiftDay(beginning, -7), month: firstOfMonth(to) }[every]
  return { from, to, hour: null }
}
