import { logGamma } from './gamma.ts'
import type { Counted } from './proportion.ts'

const logChoose = (n: number, k: number) => logGamma(n + 1) - logGamma(k + 1) - logGamma(n - k + 1)

/** Probabilities so much smaller than the largest do not show in a sum. */
const NEGLIGIBLE = 1e-17
/** Two probabilities that differ by no more are the same, but for rounding. */
const SAME = 1 + 1e-7

/**
 * How likely it is that two rates that are the same in truth differ by as much as these, or more: Fisher's exact test,
 * two-sided by the sum of all outcomes that are no more likely than this one (R. A. Fisher, The Design of Experiments,
 * 1935). 1 where either has no trials.
 *
 * @returns a probability between 0 and 1
 */
export function fisherTest(a: Counted, b: Counted): number {
  const hits = a.hits + b.hits
  const [low, high] = [Math.max(0, hits - b.trials), Math.min(hits, a.trials)]
  if (a.trials === 0 || b.trials === 0 || low === high) return 1
  const logOf = (k: number) =>
    logChoose(a.trials, k) + logChoose(b.trials, hits - k) - logChoose(a.trials + b.trials, hits)
  const mode = Math.min(
    high,
    Math.max(low, Math.floor(((a.trials + 1) * (hits + 1)) / (a.trials + b.trials + 2))),
  )
  /** The ratio of the probability of k + 1 to that of k. */
  const step = (k: number) => ((a.trials - k) * (hits - k)) / ((k + 1) * (b.trials - hits + k + 1))
  // Each outcome by its neighbour, from the likeliest one outwards: of millions of trials few thousand outcomes count.
  const observed = Math.exp(logOf(a.hits) - logOf(mode)) * SAME
  let [all, rarer] = [0, 0]
  const count = (probability: number) => {
    all += probability
    if (probability <= observed) rarer += probability
  }
  count(1)
  for (let k = mode, p = 1; k < high && p > NEGLIGIBLE; k++) count((p *= step(k)))
  for (let k = mode, p = 1; k > low && p > NEGLIGIBLE; k--) count((p /= step(k - 1)))
  return rarer === 0 ? observed : Math.min(1, rarer / all)
}
