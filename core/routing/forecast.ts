/** When something will be used up at the present pace, as days from now. */
export interface Forecast {
  readonly expected: number
  readonly earliest: number
  /** Infinity where the pace may as well be none. */
  readonly latest: number
}

const Z95 = 1.959964

/**
 * Forecasts in how many days `remaining` more scans will have come, from the scans of whole days past, the
 * newest last. The pace is their mean; its standard error is from their own scatter, at least that of a
 * Poisson count, and a 95 % interval of the pace gives that of the days. The usual normal approximation;
 * common practice, no published source. Null with fewer than three days or no scan at all.
 */
export function forecastLimit(daily: readonly number[], remaining: number): Forecast | null {
  const n = daily.length
  const pace = daily.reduce((sum, scans) => sum + scans, 0) / n
  if (n < 3 || pace <= 0) return null
  const variance = Math.max(pace, daily.reduce((sum, scans) => sum + (scans - pace) ** 2, 0) / (n - 1))
  const margin = Z95 * Math.sqrt(variance / n)
  return {
    expected: remaining / pace,
    earliest: remaining / (pace + margin),
    latest: pace > margin ? remaining / (pace - margin) : Infinity,
  }
}
