import { z } from 'zod'

/** The days Flimbo knows: calendars and zones are computed for these, and none is refused or slow among them. */
export const FIRST_DAY = '1970-01-01'
export const LAST_DAY = '2200-12-31'

const WRITTEN = 'Write the day as 2026-07-01.'
const KNOWN = 'Give a day from 1970 to 2200.'

/** Whether a text is a calendar day that Flimbo knows, such as `2026-07-01` (ISO 8601). */
export function isKnownDay(text: string): boolean {
  return calendarDay.safeParse(text).success
}

/** A calendar day from 1970 to 2200, as `2026-07-01` (ISO 8601). */
export const calendarDay = z.iso.date(WRITTEN).refine((day) => day >= FIRST_DAY && day <= LAST_DAY, KNOWN)

/** A date and a time of day on it, as `2026-07-01T08:00`. */
export const localMoment = z
  .string({ error: 'Give a date and a time.' })
  .regex(/^\d{4}-\d\d-\d\dT([01]\d|2[0-3]):[0-5]\d$/, 'Give a date and a time.')
  .refine((text) => isKnownDay(text.slice(0, 10)), KNOWN)

const DAY_MS = 86_400_000

/** The calendar day `days` after (or, negative, before) another. */
export function shiftDay(day: string, days: number): string {
  return new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10)
}

/** Days from `from` to `to`, both included. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS) + 1
}

/** The period of the same number of days just before. */
export function daysBefore(from: string, to: string): { from: string; to: string } {
  const length = daysBetween(from, to)
  return { from: shiftDay(from, -length), to: shiftDay(from, -1) }
}

/** The calendar day so many years after (or, negative, before) another; 29 February may become 28 February. */
export function shiftYear(day: string, years: number): string {
  const there = `${String(Number(day.slice(0, 4)) + years).padStart(4, '0')}${day.slice(4)}`
  const at = new Date(`${there}T00:00:00Z`)
  const isDay = !Number.isNaN(at.getTime()) && at.toISOString().slice(0, 10) === there
  return isDay ? there : `${there.slice(0, 8)}28`
}

/** A calendar day one year later; 29 February becomes 28 February. */
export const dayForward = (day: string): string => shiftYear(day, 1)
