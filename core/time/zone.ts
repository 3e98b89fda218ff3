import { tzOffset } from '@date-fns/tz'
import { z } from 'zod'

/** Whether a name is one the IANA time zone database knows, as this runtime ships it. */
export function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    // ECMA-402 also takes bare offsets such as "+01:00", which know no daylight saving.
    return /^[A-Za-z]/.test(name)
  } catch {
    return false
  }
}

/** An IANA time zone name, such as `Europe/Berlin`. */
export const zoneName = z
  .string({ error: 'Choose a time zone.' })
  .max(64, 'Choose a time zone from the list.')
  .refine(isZone, 'Choose a time zone from the list, such as Europe/Berlin.')

/** Every zone changes its clock on a quarter of an hour of UTC (IANA time zone database). */
export const QUARTER_MS = 15 * 60_000
const REMEMBERED = 2000
/** Offsets in milliseconds by zone and quarter of an hour: clocks change only on quarters (IANA tz). */
const offsets = new Map<string, Map<number, number>>()

/** How far a zone's clock is ahead of UTC at a moment, in milliseconds. */
export function zoneOffsetMs(zone: string, at: number): number {
  const quarter = Math.floor(at / QUARTER_MS)
  let known = offsets.get(zone)
  if (!known) offsets.set(zone, (known = new Map<number, number>()))
  const there = known.get(quarter)
  if (there !== undefined) return there
  const offset = Math.round(tzOffset(zone, new Date(quarter * QUARTER_MS)) * 60_000)
  if (known.size >= REMEMBERED) known.clear()
  known.set(quarter, offset)
  return offset
}
