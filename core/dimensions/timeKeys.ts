import { tz } from '@date-fns/tz'
import { getISOWeek, getISOWeekYear } from 'date-fns'
import { buckets, dayIn, QUARTER_MS, zoneOffsetMs, type Span, type Unit } from '../time/index.ts'

const MINUTE_MS = 60_000
const two = (n: number) => String(n).padStart(2, '0')

/** The day's ISO 8601 week: weeks begin on Monday, week 1 holds the year's first Thursday. */
function weekOf(day: string): string {
  const context = { in: tz('UTC') }
  return `${String(getISOWeekYear(day, context))}-W${two(getISOWeek(day, context))}`
}

function hourKey(zone: string, at: number): string {
  const offset = zoneOffsetMs(zone, at)
  const local = new Date(at + offset).toISOString()
  const minutes = Math.abs(offset) / MINUTE_MS
  const sign = offset < 0 ? '-' : '+'
  return `${local.slice(0, 13)}:00${sign}${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`
}

/**
 * What a piece of time is called in addresses and files, as ISO 8601 writes it: `2026-07-01T14:00+02:00`,
 * `2026-07-01`, `2026-W27`, `2026-07`, `2026`; a quarter is `2026-Q3`. An hour that comes twice has two names.
 *
 * @param at a moment in it, UTC milliseconds
 */
export function timeKey(zone: string, unit: Unit, at: number): string {
  if (unit === 'hour') return hourKey(zone, at)
  const day = dayIn(zone, at)
  if (unit === 'day') return day
  if (unit === 'week') return weekOf(day)
  if (unit === 'month') return day.slice(0, 7)
  const year = day.slice(0, 4)
  return unit === 'year' ? year : `${year}-Q${String(Math.ceil(Number(day.slice(5, 7)) / 3))}`
}

/** A piece of time with what it is called. */
export type TimePiece = Span & { readonly key: string }

/** The pieces of time that a span has in a zone, in their order. @throws TooManyBuckets */
export const timePieces = (zone: string, span: Span, unit: Unit): TimePiece[] =>
  buckets(zone, span, unit).map((piece) => ({ ...piece, key: timeKey(zone, unit, piece.start) }))

export const HOURS_OF_WEEK = 168

const HOUR_MS = 3_600_000
/** So many quarters of an hour has a day of UTC. */
export const DAY_QUARTERS = 96
/** The day that moments are counted from, 1 January 1970, was a Thursday. */
const HOURS_SINCE_MONDAY = 3 * 24

/**
 * Which hour of the week each quarter of an hour of a day of UTC lies in, in a zone: 0 is Monday from 0:00, 167 is Sunday
 * from 23:00.
 *
 * @param day days since 1 January 1970, UTC
 */
export function hoursOfWeek(zone: string, day: number): number[] {
  const start = day * DAY_QUARTERS * QUARTER_MS
  const momentOf = (quarter: number) => start + quarter * QUARTER_MS
  const [first, last] = [zoneOffsetMs(zone, start), zoneOffsetMs(zone, momentOf(DAY_QUARTERS - 1))]
  // No zone changes its clock and changes it back within a day: one that has not moved is asked twice, not 96 times.
  const offsetAt = (at: number) => (first === last ? first : zoneOffsetMs(zone, at))
  return Array.from({ length: DAY_QUARTERS }, (_, quarter) => {
    const at = momentOf(quarter)
    const hour = Math.floor((at + offsetAt(at)) / HOUR_MS) + HOURS_SINCE_MONDAY
    return ((hour % HOURS_OF_WEEK) + HOURS_OF_WEEK) % HOURS_OF_WEEK
  })
}

/** Keys of what comes again: `00` to `23`; `1` for Monday to `7` for Sunday (ISO 8601); both, as `1-00` to `7-23`. */
export const RECURRING_KEYS = {
  hourOfDay: Array.from({ length: 24 }, (_, hour) => two(hour)),
  weekday: Array.from({ length: 7 }, (_, day) => String(day + 1)),
  hourOfWeek: Array.from(
    { length: HOURS_OF_WEEK },
    (_, hour) => `${String(Math.floor(hour / 24) + 1)}-${two(hour % 24)}`,
  ),
} as const

/** The place of an hour of the week among those keys. */
export const RECURRING_PLACE = {
  hourOfDay: (hour: number) => hour % 24,
  weekday: (hour: number) => Math.floor(hour / 24),
  hourOfWeek: (hour: number) => hour,
} as const
