import { countAt, median, robustDeviation, stabilised, STABLE_95 } from '../results/index.ts'

/** What a day was expected to bring, with the ends between which 95 of 100 days lie, and how widely days scatter. */
export interface Expected {
  readonly expected: number
  readonly low: number
  readonly high: number
  /** Of one day, in the transformed scale in which pure chance (Poisson) has 1. */
  readonly spread: number
}

const WEEK = 7
/** Days that a forecast looks back: eight of each weekday. */
const SEASON_DAYS = 8 * WEEK
/** The first forecast needs four weeks. */
export const LEAST_DAYS = 4 * WEEK
/** The level follows the season: it is that of the last two weeks. */
const LEVEL_DAYS = 2 * WEEK
/** Days whose deviations say how widely days scatter. */
const SPREAD_DAYS = 4 * WEEK
const SPREAD_LEAST = WEEK
/** A weekday on which nearly nothing is scanned is no reason to divide by nothing. */
const FACTOR_LEAST = 0.05

/** By how many of its spreads a count lies above what was expected; below where it is negative. */
export const deviation = (
  count: number,
  { expected, spread }: Pick<Expected, 'expected' | 'spread'>,
): number => (stabilised(count) - stabilised(expected)) / spread

/** What the day after some days is expected to bring: the level of two weeks, times what its weekday has over the others. */
function nextOf(history: readonly number[]): number {
  const days = history.slice(-SEASON_DAYS)
  /** Weekdays by how many days before the next one they lie: 0 is its own. */
  const weekday = (place: number) => (days.length - place) % WEEK
  const byWeekday = Array.from({ length: WEEK }, (_, own) =>
    median(days.filter((_count, place) => weekday(place) === own)),
  )
  const mean = byWeekday.reduce((sum, each) => sum + each, 0) / WEEK
  if (mean === 0) return 0
  const factors = byWeekday.map((each) => Math.max(FACTOR_LEAST, each / mean))
  const level = median(days.map((count, place) => count / (factors[weekday(place)] ?? 1)).slice(-LEVEL_DAYS))
  return level * (factors[0] ?? 1)
}

/**
 * What each day was expected to bring, seen from the day before it. Weekdays by their medians over eight weeks, the level
 * by the median of two weeks without them, the scatter by the median of the absolute deviations of four weeks of such
 * forecasts, never below that of pure chance: single unusual days move none of them (P. J. Rousseeuw, C. Croux, J. Am.
 * Stat. Assoc. 88, 1993, of the median of absolute deviations).
 *
 * @param counts scans a day, the oldest first, no day left out
 * @returns one for each day and one for the day after them; null for those that know too little
 */
export function expectedDays(counts: readonly number[]): (Expected | null)[] {
  const errors: number[] = []
  // A series begins with its first scan.
  const begun = counts.findIndex((count) => count > 0)
  return Array.from({ length: counts.length + 1 }, (_, day) => {
    if (begun < 0 || day - begun < LEAST_DAYS) {
      errors.push(NaN)
      return null
    }
    const expected = nextOf(counts.slice(begun, day))
    const known = errors.slice(-SPREAD_DAYS).filter((error) => !Number.isNaN(error))
    const spread = known.length < SPREAD_LEAST ? NaN : Math.max(1, robustDeviation(known, 0))
    errors.push(stabilised(counts[day] ?? 0) - stabilised(expected))
    if (Number.isNaN(spread)) return null
    const middle = stabilised(expected)
    return {
      expected,
      low: countAt(middle - STABLE_95 * spread),
      high: countAt(middle + STABLE_95 * spread),
      spread,
    }
  })
}
