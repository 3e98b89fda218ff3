import { number } from '../formats/index.ts'
import {
  chancesOfBeing,
  difference,
  trialsNeeded,
  wilson,
  type Counted,
  type Interval,
} from './proportion.ts'

/** How likely a variant must be the best one to be called so, once the planned sample is there. */
const SURE = 0.95

/** What came of one variant of a split test. */
export interface VariantVerdict {
  /** Null of one that nobody has visited. */
  readonly rate: Interval | null
  /** Against the best of the others; null where there is nothing to compare. */
  readonly ahead: Interval | null
  /** The probability of having the highest rate. */
  readonly chance: number
}

export interface SplitVerdict {
  readonly variants: readonly VariantVerdict[]
  /** Visitors that each variant needs, as planned, and the fewest that one has. */
  readonly needed: number
  readonly fewest: number
  /** The place of the variant that is best; null before the planned sample, and where none is clearly. */
  readonly best: number | null
}

/**
 * Judges a split test by what was counted: rates with Wilson intervals, differences by Newcombe's method 10, and the
 * chance of each being best. None is called best before each has the sample that was planned: whoever looks often enough
 * sooner finds a winner where there is none.
 *
 * @param counted conversions of visitors, a row each variant that is still shown
 * @param base expected rate, and `lift` the difference that is to show; both between 0 and 1
 */
export function splitVerdict(counted: readonly Counted[], base: number, lift: number): SplitVerdict {
  const chances = chancesOfBeing(counted)
  const needed = trialsNeeded(base, lift)
  const fewest = Math.min(...counted.map(({ trials }) => trials))
  const variants = counted.map((each, i): VariantVerdict => {
    const others = counted.filter((other, j) => j !== i && other.trials > 0)
    const rival = others.reduce<Counted | null>(
      (top, other) => (top && top.hits / top.trials >= other.hits / other.trials ? top : other),
      null,
    )
    return {
      rate: each.trials === 0 ? null : wilson(each.hits, each.trials),
      ahead: each.trials === 0 || !rival ? null : difference(each, rival),
      chance: chances[i] ?? 0,
    }
  })
  const top = chances.indexOf(Math.max(...chances))
  const isDecided = counted.length > 1 && fewest >= needed && (chances[top] ?? 0) >= SURE
  return { variants, needed, fewest, best: isDecided ? top : null }
}

/** What may be said of a split test by now. */
export function verdictInWords({ best, needed, fewest }: SplitVerdict, names: readonly string[]): string {
  if (fewest < needed)
    return `Each variant needs ${number(needed)} visitors; the fewest so far are ${number(fewest)}, so ${number(needed - fewest)} more. No winner is named before.`
  if (best === null) return 'Each variant has the visitors it needs, and none is clearly better.'
  return `“${names[best] ?? ''}” brings more leads than the others.`
}
