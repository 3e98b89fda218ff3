import { dayIn, shiftDay, startOfDay } from '@flimbo/core/time'
import type { Database } from '@flimbo/server/database'
import { startReader } from '@flimbo/server/reader'
import { lookForUnusual } from '@flimbo/server/unusual'
import { ZONE } from './calendar.ts'

const HOUR_MS = 3_600_000
/** Enough looks to see all that the week had: so many days ago, at an hour. */
const LOOKS = [
  [5, 23.9],
  [3, 12.1],
  [1, 12.1],
] as const

/** Looks over the sample as Flimbo would have done in its last week. */
export async function fillUnusual(database: Database, now: number): Promise<void> {
  const reviewer = startReader(database.file)
  try {
    for (const [daysAgo, hour] of LOOKS) {
      const midnight = startOfDay(ZONE, shiftDay(dayIn(ZONE, now), -daysAgo))
      await lookForUnusual({ database, reviewer, live: { tell: () => undefined } }, midnight + hour * HOUR_MS)
    }
  } finally {
    await reviewer.close()
  }
}
