import { logGamma } from './gamma.ts'
import { median } from './robust.ts'
import type { Interval } from './proportion.ts'

/** What values have in common. */
export interface Spread {
  readonly count: number
  readonly mean: number
  /** Standard deviation of a sample; null of fewer than two values. */
  readonly deviation: number | null
  readonly median: number
  readonly least: number
  readonly most: number
}

/** The density of Student's t distribution at t, with `df` degrees of freedom. */
const density = (t: number, df: number, scale: number) =>
  scale * Math.exp((-(df + 1) / 2) * Math.log1p((t * t) / df))

const STEPS = 400
/** The part of Student's t distribution between 0 and t: Simpson's rule over the angle whose tangent is t / √df. */
function partUpTo(t: number, df: number): number {
  const scale = Math.exp(logGamma((df + 1) / 2) - logGamma(df / 2)) / Math.sqrt(df * Math.PI)
  const end = Math.atan(t / Math.sqrt(df))
  const at = (i: number) => {
    const angle = (end * i) / STEPS
    return (density(Math.tan(angle) * Math.sqrt(df), df, scale) * Math.sqrt(df)) / Math.cos(angle) ** 2
  }
  let sum = at(0) + at(STEPS)
  for (let i = 1; i < STEPS; i++) sum += (i % 2 === 0 ? 2 : 4) * at(i)
  return (sum * end) / STEPS / 3
}

/**
 * The 97.5 % point of Student's t distribution, found by halving.
 *
 * @param df degrees of freedom, at least 1
 */
export function studentT(df: number): number {
  let [low, high] = [0, 13]
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (partUpTo(middle, df) < 0.475) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * The 95 % interval of a mean, by Student's t distribution (NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.2).
 * Null of fewer than two values.
 */
export function meanInterval({
  count,
  mean,
  deviation,
}: Pick<Spread, 'count' | 'mean' | 'deviation'>): Interval | null {
  if (deviation === null || count < 2) return null
  const half = (studentT(count - 1) * deviation) / Math.sqrt(count)
  return { value: mean, low: mean - half, high: mean + half }
}

/** What values have in common; null where there are none. */
export function spreadOf(values: readonly number[]): Spread | null {
  const sorted = Float64Array.from(values).sort()
  const count = sorted.length
  const [least, most] = [sorted[0], sorted.at(-1)]
  if (least === undefined || most === undefined) return null
  const mean = sorted.reduce((sum, each) => sum + each, 0) / count
  const squares = sorted.reduce((sum, each) => sum + (each - mean) ** 2, 0)
  return {
    count,
    mean,
    deviation: count < 2 ? null : Math.sqrt(squares / (count - 1)),
    median: median(sorted),
    least,
    most,
  }
}
