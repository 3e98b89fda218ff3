import { shiftDay } from './day.ts'
import { QUARTER_MS, zoneOffsetMs } from './zone.ts'

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

/** The span of the calendar days from `from` to `to`, both included, in a zone. */
export function spanOfDays(zone: string, from: string, to: string): Span {
  return { start: startOfDay(zone, from), end: startOfDay(zone, shiftDay(to, 1)) }
}

/** The same, open where a day is left out: from the first moment of 1970 UTC, or to beyond every moment. */
export function openSpanOfDays(zone: string, from: string | undefined, to: string | undefined): Span {
  return {
    start: from === undefined ? 0 : startOfDay(zone, from),
    end: to === undefined ? Number.MAX_SAFE_INTEGER : startOfDay(zone, shiftDay(to, 1)),
  }
}
