import { DIMENSIONS, type Dimension } from '../dimensions/index.ts'
import { intervalOf, measured, MEASURES, type Answer, type Measure } from '../results/index.ts'
import { beforeOf } from './drawn.ts'
import { rowLabels } from './keyLabels.ts'

/** A cell of a table: text, or a number as it is; empty where there is no figure. */
export type TableCell = string | number | null

/** An answer as a table: what its columns are called, and a row each key. */
export interface AnswerTable {
  readonly headings: readonly string[]
  readonly rows: readonly (readonly TableCell[])[]
}

/** What every figure is worked out of. */
export const COUNTS = ['scans', 'uniques', 'leads', 'arrivals', 'goals', 'value', 'cost'] as const

/**
 * All that an answer says: the keys in words, what was asked with its interval where it is a rate, what it is worked out
 * of, and what it is held against.
 */
export function answerTable(
  what: Measure,
  by: readonly Dimension[],
  { rows, names }: Pick<Answer, 'rows' | 'names'>,
  against: string | null,
): AnswerTable {
  const labels = rowLabels(by, { rows, names })
  const isRate = MEASURES[what].form === 'share'
  const others = COUNTS.filter((each) => each !== what)
  const { label } = MEASURES[what]
  return {
    headings: [
      ...by.map((dimension) => DIMENSIONS[dimension].label),
      label,
      ...(isRate ? ['From (95 %)', 'To (95 %)'] : []),
      ...(against === null ? [] : [`${label}, ${against}`]),
      ...others.map((each) => MEASURES[each].label),
    ],
    rows: rows.map((row, i) => {
      const interval = intervalOf(what, row)
      return [
        ...labels.map((all) => all[i] ?? ''),
        measured(what, row),
        ...(isRate ? [interval?.low ?? null, interval?.high ?? null] : []),
        ...(against === null ? [] : [beforeOf(what, row)]),
        ...others.map((each) => measured(each, row)),
      ]
    }),
  }
}
