import { tz } from '@date-fns/tz'
import {
  addDays,
  addMonths,
  addQuarters,
  addYears,
  startOfMonth,
  startOfQuarter,
  startOfWeek,
  startOfYear,
} from 'date-fns'
import { dayIn, startOfDay, type Span } from './calendar.ts'
import { QUARTER_MS, zoneOffsetMs } from './zone.ts'

/** What one column of the time chart stands for. Weeks begin on Monday (ISO 8601). */
export const UNITS = ['hour', 'day', 'week', 'month', 'quarter', 'year'] as const
export type Unit = (typeof UNITS)[number]

const HOUR_MS = 60 * 60_000
export const BUCKETS_MAX = 12_000

/** The unit that gives a readable number of columns for a number of days. */
export function unitFor(days: number): Unit {
  if (days <= 3) return 'hour'
  if (days <= 92) return 'day'
  return days <= 366 * 2 ? 'week' : 'month'
}

/** There would be more columns than a chart or a table can hold. */
export class TooManyBuckets extends RangeError {
  override readonly name = 'TooManyBuckets'
  constructor(unit: Unit) {
    super(`That is too long a time to show by ${unit}. Choose a larger unit or fewer days.`)
  }
}

/**
 * Parts a span into the hours, days, weeks, months, quarters or years of a zone, in order and without gaps. The
 * first and the last are cut to the span. A day has 23 or 25 hours where the clock changes, and an hour
 * that comes twice is two buckets. All of today's zones change their clocks at quarters of an hour of
 * UTC (IANA time zone database), so every edge is one.
 * @throws TooManyBuckets above 12,000
 */
export function buckets(zone: string, { start, end }: Span, unit: Unit): Span[] {
  const spans: Span[] = []
  const next = unit === 'hour' ? (at: number) => nextHour(zone, at) : calendarStep(zone, unit)
  for (let at = start; at < end;) {
    const stop = Math.min(next(at), end)
    spans.push({ start: at, end: stop })
    if (spans.length > BUCKETS_MAX) throw new TooManyBuckets(unit)
    at = stop
  }
  return spans
}

/** The next moment at which the local hour begins anew or the clock changes. */
function nextHour(zone: string, at: number): number {
  const offset = zoneOffsetMs(zone, at)
  const hour = Math.floor((at + offset) / HOUR_MS)
  let next = (hour + 1) * HOUR_MS - offset
  // Only across a change of clock can the hour end earlier than that.
  if (zoneOffsetMs(zone, next) !== offset) {
    next = at - (at % QUARTER_MS)
    do next += QUARTER_MS
    while (zoneOffsetMs(zone, next) === offset && Math.floor((next + offset) / HOUR_MS) === hour)
  }
  return next
}

function calendarStep(zone: string, unit: Exclude<Unit, 'hour'>): (at: number) => number {
  const context = { in: tz('UTC') }
  const first = {
    day: (d: Date) => addDays(d, 1, context),
    week: (d: Date) => addDays(startOfWeek(d, { weekStartsOn: 1, ...context }), 7, context),
    month: (d: Date) => addMonths(startOfMonth(d, context), 1, context),
    quarter: (d: Date) => addQuarters(startOfQuarter(d, context), 1, context),
    year: (d: Date) => addYears(startOfYear(d, context), 1, context),
  }[unit]
  // Calendar arithmetic on the day itself; the zone comes in only where a day begins.
  return (at) =>
    startOfDay(zone, new Date(first(new Date(dayIn(zone, at))).getTime()).toISOString().slice(0, 10))
}
