import { tz } from '@date-fns/tz'
import { getISOWeek, getISOWeekYear } from 'date-fns'
import { buckets, clockFace, dayIn, zoneOffsetMs, type Span, type Unit } from '../time/index.ts'

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

/** Which hour of the week a moment lies in, in a zone: 0 is Monday from 0:00, 167 is Sunday from 23:00. */
export function hourOfWeek(zone: string, at: number): number {
  const { weekday, minute } = clockFace(zone, at)
  return (weekday - 1) * 24 + Math.floor(minute / 60)
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
