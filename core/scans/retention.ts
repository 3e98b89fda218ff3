import { z } from 'zod'
import { dayIn, startOfDay } from '../time/index.ts'

/** How long single scans are kept, in whole months; none where they are kept for ever. */
export const MONTHS_KEPT = [1, 3, 6, 14, 26, 38] as const

const monthsKept = z
  .int({ error: 'Give the number of months, or choose to keep single scans for ever.' })
  .min(1, 'Keep single scans for at least a month.')
  .max(240, 'That is longer than 20 years: keep single scans for ever instead.')
/** The same as it stands in an address. */
export const monthsQuery = z.coerce.number().pipe(monthsKept)

/** A workspace's rule for how long it keeps single scans. Older ones are folded into sums. */
export const retention = z.strictObject({
  months: monthsKept.nullable(),
})
export type Retention = z.infer<typeof retention>
export const KEEP_FOR_EVER: Retention = { months: null }

/**
 * The moment before which single scans are not kept any more: the beginning of a month, so that each is kept for at
 * least so many months.
 *
 * @param zone of the workspace
 * @param now UTC milliseconds
 * @returns UTC milliseconds
 */
export function keptSince(zone: string, now: number, months: number): number {
  const [year = 0, month = 1] = dayIn(zone, now).split('-').map(Number)
  const first = new Date(Date.UTC(year, month - 1 - months, 1)).toISOString()
  return startOfDay(zone, first.slice(0, 10))
}
