import { logGamma } from './gamma.ts'

/** A part between 0 and 1 with the ends of an interval. */
export interface Interval {
  readonly value: number
  readonly low: number
  readonly high: number
}

/** The 97.5 % point of the standard normal distribution. */
const Z95 = 1.959963984540054

/**
 * The Wilson score interval of a proportion, 95 % (Wilson 1927; Newcombe, Statistics in Medicine 17, 1998,
 * method 3). `hits` of `trials`, 0 ≤ hits ≤ trials and trials ≥ 1.
 */
export function wilson(hits: number, trials: number, z = Z95): Interval {
  const p = hits / trials
  const middle = p + (z * z) / (2 * trials)
  const half = z * Math.sqrt((p * (1 - p)) / trials + (z * z) / (4 * trials * trials))
  const whole = 1 + (z * z) / trials
  // At the ends rounding may leave a trace of a bound that is exactly 0 or 1.
  return {
    value: p,
    low: hits === 0 ? 0 : Math.max(0, (middle - half) / whole),
    high: hits === trials ? 1 : Math.min(1, (middle + half) / whole),
  }
}

export interface Counted {
  readonly hits: number
  readonly trials: number
}

/**
 * The difference of two proportions, a − b, with its 95 % interval from the two Wilson intervals (Newcombe,
 * Statistics in Medicine 17, 1998, pages 873–890, method 10).
 */
export function difference(a: Counted, b: Counted): Interval {
  const [x, y] = [wilson(a.hits, a.trials), wilson(b.hits, b.trials)]
  const value = x.value - y.value
  return {
    value,
    low: value - Math.sqrt((x.value - x.low) ** 2 + (y.high - y.value) ** 2),
    high: value + Math.sqrt((x.high - x.value) ** 2 + (y.value - y.low) ** 2),
  }
}

/**
 * How many trials each of two variants needs until a difference in proportion of `lift` above `base` shows with
 * 95 % confidence, two-sided, and 80 % power; the usual normal approximation for two proportions.
 * Infinity where there is no difference to show.
 */
export function trialsNeeded(base: number, lift: number): number {
  const other = Math.min(1, Math.max(0, base + lift))
  if (other === base) return Infinity
  const Z80 = 0.8416212335729143
  const pooled = (base + other) / 2
  const spread =
    Z95 * Math.sqrt(2 * pooled * (1 - pooled)) + Z80 * Math.sqrt(base * (1 - base) + other * (1 - other))
  return Math.ceil((spread / (other - base)) ** 2)
}

const STEPS = 4000

/**
 * The probability of each variant having the highest proportion, given what was counted and nothing else
 * (uniform priors, so Beta posteriors), by integration over 4,000 steps. The sum is 1.
 */
export function chancesOfBeing(best: readonly Counted[]): number[] {
  if (best.length < 2) return best.map(() => 1)
  const densities = best.map(({ hits, trials }) => {
    const [a, b] = [hits + 1, trials - hits + 1]
    const constant = logGamma(a + b) - logGamma(a) - logGamma(b)
    const density = Array.from({ length: STEPS }, (_, i) => {
      const x = (i + 0.5) / STEPS
      return Math.exp(constant + (a - 1) * Math.log(x) + (b - 1) * Math.log(1 - x)) / STEPS
    })
    let below = 0
    // Up to the middle of each step, so that equals share.
    return {
      density,
      upTo: density.map((part) => {
        below += part
        return below - part / 2
      }),
    }
  })
  const chances = densities.map(({ density }, i) =>
    density.reduce(
      (sum, part, step) =>
        sum + part * densities.reduce((all, other, j) => (j === i ? all : all * (other.upTo[step] ?? 1)), 1),
      0,
    ),
  )
  const sum = chances.reduce((total, chance) => total + chance, 0)
  return chances.map((chance) => chance / sum)
}
