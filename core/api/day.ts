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
