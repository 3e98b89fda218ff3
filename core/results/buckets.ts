import { tz } from '@date-fns/tz'
import { addDays, addMonths, addYears, startOfMonth, startOfWeek, startOfYear } from 'date-fns'
import { zoneOffsetMs } from '../conditions/index.ts'

/** What one column of the time chart stands for. Weeks begin on Monday (ISO 8601). */
export const UNITS = ['hour', 'day', 'week', 'month', 'year'] as const
export type Unit = (typeof UNITS)[number]

export const QUARTER_MS = 15 * 60_000
const HOUR_MS = 60 * 60_000
export const BUCKETS_MAX = 12_000

/** The moments from `start` to just before `end`, in UTC milliseconds. */
export interface Span {
  readonly start: number
  readonly end: number
}

/** The calendar day in a zone at a moment, as `2026-07-01`. */
export function dayIn(zone: string, at: number): string {
  const local = new Date(at + zoneOffsetMs(zone, at))
  return local.toISOString().slice(0, 10)
}

/**
 * The first moment of a calendar day in a zone, in UTC milliseconds: midnight, or the first moment
 * after it where the clock jumps over midnight, or the earlier of two midnights.
 * @throws RangeError where `day` is none; quick for every one from 1970 to 2200 and beyond
 */
export function startOfDay(zone: string, day: string): number {
  const midnight = Date.parse(`${day}T00:00:00Z`)
  if (Number.isNaN(midnight)) throw new RangeError(`No calendar day: ${day}`)
  // The offset of a moment near by; the day may begin a few quarters beside it where the clock changes then.
  const guess = midnight - zoneOffsetMs(zone, midnight - zoneOffsetMs(zone, midnight))
  let start = guess - (((guess % QUARTER_MS) + QUARTER_MS) % QUARTER_MS)
  while (beginsBy(zone, start, midnight)) start -= QUARTER_MS
  do start += QUARTER_MS
  while (!beginsBy(zone, start, midnight))
  return start
}

/** Whether a day, by its midnight of UTC, has begun in a zone at a moment. */
function beginsBy(zone: string, at: number, midnight: number): boolean {
  return at + zoneOffsetMs(zone, at) >= midnight
}

/** The calendar day `days` after (or, negative, before) another. */
export function shiftDay(day: string, days: number): string {
  return new Date(Date.parse(day) + days * 24 * HOUR_MS).toISOString().slice(0, 10)
}

/** Days from `from` to `to`, both included. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / (24 * HOUR_MS)) + 1
}

/** The span of the calendar days from `from` to `to`, both included, in a zone. */
export function spanOfDays(zone: string, from: string, to: string): Span {
  return { start: startOfDay(zone, from), end: startOfDay(zone, shiftDay(to, 1)) }
}

/** The period of the same number of days just before. */
export function daysBefore(from: string, to: string): { from: string; to: string } {
  const length = daysBetween(from, to)
  return { from: shiftDay(from, -length), to: shiftDay(from, -1) }
}

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
 * Parts a span into the hours, days, weeks, months or years of a zone, in order and without gaps. The
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
    year: (d: Date) => addYears(startOfYear(d, context), 1, context),
  }[unit]
  // Calendar arithmetic on the day itself; the zone comes in only where a day begins.
  return (at) =>
    startOfDay(zone, new Date(first(new Date(dayIn(zone, at))).getTime()).toISOString().slice(0, 10))
}

/** Scans in one quarter of an hour of UTC, numbered from 1970. */
export interface QuarterCount {
  readonly quarter: number
  readonly scans: number
  readonly uniques: number
}

export interface BucketCount extends Span {
  readonly scans: number
  readonly uniques: number
}

/** Sums quarter-hour counts, in ascending order, into buckets, in ascending order and without gaps. */
export function countInto(spans: readonly Span[], quarters: readonly QuarterCount[]): BucketCount[] {
  let next = 0
  return spans.map((span) => {
    let [scans, uniques] = [0, 0]
    for (let q = quarters[next]; q && q.quarter * QUARTER_MS < span.end; q = quarters[++next]) {
      if (q.quarter * QUARTER_MS < span.start) continue
      scans += q.scans
      uniques += q.uniques
    }
    return { ...span, scans, uniques }
  })
}
