import { fisherTest } from './fisher.ts'
import { adjustedForMany } from './falseDiscovery.ts'
import { NO_FIGURES, RANKED_FROM, shareOf, type Figures, type Measure } from './measures.ts'
import { difference, wilson, type Counted, type Interval } from './proportion.ts'
import type { AnswerRow } from './question.ts'

/** A difference is called more than chance where at most so many of those that are called so are none. */
export const FALSE_DISCOVERIES = 0.05

/** One key against something else. */
export interface Comparison {
  readonly keys: readonly string[]
  readonly rate: Interval
  readonly other: Interval
  /** By how much the rate is above the other's, with its 95 % interval (Newcombe's method 10). */
  readonly above: Interval
  /** Corrected for how many are compared. */
  readonly pValue: number
  readonly isMoreThanChance: boolean
}

/**
 * Compares the rates of keys: each with all others together, or with what it is held against. Keys that rest on fewer
 * than five scans on either side are left out.
 *
 * @param measure a rate that is a part of scans; of any other nothing is compared
 * @returns those that differ for the likeliest first
 */
export function compareRates(
  measure: Measure,
  rows: readonly AnswerRow[],
  total: Figures,
  against: 'others' | 'before',
): Comparison[] {
  const compared = rows.flatMap((row): { keys: readonly string[]; a: Counted; b: Counted }[] => {
    const other = against === 'before' ? row.before : withoutRow(total, row)
    const [a, b] = [shareOf(measure, row), other && shareOf(measure, other)]
    return a && b && a.trials >= RANKED_FROM && b.trials >= RANKED_FROM ? [{ keys: row.keys, a, b }] : []
  })
  const adjusted = adjustedForMany(compared.map(({ a, b }) => fisherTest(a, b)))
  return compared
    .map(({ keys, a, b }, i): Comparison => {
      const pValue = adjusted[i] ?? 1
      return {
        keys,
        rate: wilson(a.hits, a.trials),
        other: wilson(b.hits, b.trials),
        above: difference(a, b),
        pValue,
        isMoreThanChance: pValue <= FALSE_DISCOVERIES,
      }
    })
    .sort((x, y) => x.pValue - y.pValue || Math.abs(y.above.value) - Math.abs(x.above.value))
}

/** What is left of a total without one of its rows. */
function withoutRow(total: Figures, row: Figures): Figures {
  const minus = (of: 'scans' | 'uniques' | 'leads' | 'arrivals' | 'goals') => Math.max(0, total[of] - row[of])
  return {
    ...NO_FIGURES,
    scans: minus('scans'),
    uniques: minus('uniques'),
    leads: minus('leads'),
    arrivals: minus('arrivals'),
    goals: minus('goals'),
  }
}
