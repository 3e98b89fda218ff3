/** The middle of some values; between the two in the middle where they are even in number. 0 of none. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort()
  const [lower, upper] = [sorted[Math.ceil(sorted.length / 2) - 1], sorted[Math.floor(sorted.length / 2)]]
  return ((lower ?? 0) + (upper ?? 0)) / 2
}

/** So that the median absolute deviation estimates the standard deviation of normal values. */
const MAD_SCALE = 1.4826

/**
 * How widely values scatter about a centre: their median absolute deviation, scaled to a standard deviation (Hampel,
 * J. Am. Stat. Assoc. 69 (1974), from memory). Single values far out do not move it.
 */
export const robustDeviation = (values: readonly number[], centre: number): number =>
  MAD_SCALE * median(values.map((each) => Math.abs(each - centre)))

/** In the scale of `stabilised` 95 of 100 counts lie so far from what is expected by chance alone. */
export const STABLE_95 = 1.96

/**
 * A count in a scale in which chance alone (Poisson) scatters by 1, however large the count is: F. J. Anscombe's square
 * root (Biometrika 35, 1948).
 */
export const stabilised = (count: number): number => 2 * Math.sqrt(count + 3 / 8)

/** The count that stands at a place of that scale; never below 0. */
export const countAt = (stable: number): number => Math.max(0, (Math.max(0, stable) / 2) ** 2 - 3 / 8)
