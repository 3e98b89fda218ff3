import type { Interval } from './proportion.ts'
import type { AnswerRow } from './question.ts'
import { countAt, stabilised, STABLE_95 } from './robust.ts'

/** What pieces are held to: what they brought in, or else goals, leads or scans for their cost. */
export const WORTH_BY = ['value', 'goals', 'leads', 'scans'] as const
export type WorthBy = (typeof WORTH_BY)[number]

/** Whether a piece earns its place: it does, it does not, or too little is known. */
export type Earning = 'earns' | 'loses' | 'open'

export interface EarningPiece {
  readonly key: string
  readonly cost: number
  /** For each unit of cost, with its 95 % interval. */
  readonly perCost: Interval
  readonly earning: Earning
}

export interface WhatNext {
  readonly by: WorthBy
  /** What a piece must bring for each unit of cost: 1 where its value is counted, or else what all bring together. */
  readonly measure: number
  /** Those that earn their place first, then what is open. */
  readonly pieces: readonly EarningPiece[]
}

/** Between what a count may lie by chance alone, with 95 %. */
export const countInterval = (count: number): Interval => ({
  value: count,
  low: countAt(stabilised(count) - STABLE_95),
  high: countAt(stabilised(count) + STABLE_95),
})

/**
 * Which pieces earn their place. Where goals have values, one does that brought in more than it cost, even at the lower
 * end of what chance allows; where they have none, one that brought more goals, leads or scans for its cost than all
 * pieces together. Pieces whose cost is not known, or is nothing, are left out.
 *
 * @param rows by piece; null where no piece has a cost, or nothing came of any
 */
export function whatNext(rows: readonly AnswerRow[]): WhatNext | null {
  const costed = rows.flatMap((row) =>
    row.cost !== null && row.cost > 0 ? [{ ...row, cost: row.cost }] : [],
  )
  const sum = (of: WorthBy | 'cost') => costed.reduce((total, row) => total + row[of], 0)
  const by = WORTH_BY.find((each) => sum(each) > 0)
  if (by === undefined) return null
  const measure = by === 'value' ? 1 : sum(by) / sum('cost')
  const pieces = costed.map((row): EarningPiece => {
    // Of a value the number of goals says how sure it is.
    const count = by === 'value' ? row.goals : row[by]
    const { low, high } = countInterval(count)
    const each = by === 'value' ? worthOfOne(row, sum('value') / Math.max(1, sum('goals'))) : 1
    const perCost = {
      value: row[by] / row.cost,
      low: (low * each) / row.cost,
      high: (high * each) / row.cost,
    }
    return { key: row.keys[0] ?? '', cost: row.cost, perCost, earning: earningOf(perCost, measure) }
  })
  const rank: Readonly<Record<Earning, number>> = { earns: 0, open: 1, loses: 2 }
  return {
    by,
    measure,
    pieces: pieces.sort((a, b) => rank[a.earning] - rank[b.earning] || b.perCost.value - a.perCost.value),
  }
}

/** What a goal of a piece is worth; of one without goals what they are worth elsewhere. */
const worthOfOne = ({ value, goals }: AnswerRow, elsewhere: number) => (goals > 0 ? value / goals : elsewhere)

function earningOf({ low, high }: Interval, measure: number): Earning {
  if (low >= measure) return 'earns'
  return high < measure ? 'loses' : 'open'
}
