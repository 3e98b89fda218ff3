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
