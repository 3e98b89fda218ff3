import { DIMENSIONS, type Dimension } from '../dimensions/index.ts'
import {
  intervalOf,
  measured,
  MEASURES,
  type Answer,
  type AnswerRow,
  type Measure,
} from '../results/index.ts'
import { escapeFormula, writeTable } from '../plan/index.ts'
import { beforeOf } from './drawn.ts'
import { rowLabels } from './keyLabels.ts'

/** A cell of a table: text, or a number as it is; empty where there is no figure. */
export type TableCell = string | number | null

/** What the cells of a column are: text, or figures of a kind. */
export type ColumnForm = 'text' | 'count' | 'share' | 'ratio' | 'money'

/** An answer as a table: what its columns are called and hold, a row each key, and all that the filters take. */
export interface AnswerTable {
  readonly headings: readonly string[]
  readonly forms: readonly ColumnForm[]
  readonly rows: readonly (readonly TableCell[])[]
  readonly total: readonly TableCell[]
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
  { rows, names, total }: Pick<Answer, 'rows' | 'names' | 'total'>,
  against: string | null,
): AnswerTable {
  const labels = rowLabels(by, { rows, names })
  const { label, form } = MEASURES[what]
  const isRate = form === 'share'
  const others = COUNTS.filter((each) => each !== what)
  const cellsOf = (row: Omit<AnswerRow, 'keys'>): TableCell[] => {
    const interval = intervalOf(what, row)
    return [
      measured(what, row),
      ...(isRate ? [interval?.low ?? null, interval?.high ?? null] : []),
      ...(against === null ? [] : [beforeOf(what, row)]),
      ...others.map((each) => measured(each, row)),
    ]
  }
  return {
    headings: [
      ...by.map((dimension) => DIMENSIONS[dimension].label),
      label,
      ...(isRate ? ['From (95 %)', 'To (95 %)'] : []),
      ...(against === null ? [] : [`${label}, ${against}`]),
      ...others.map((each) => MEASURES[each].label),
    ],
    forms: [
      ...by.map(() => 'text' as const),
      form,
      ...(isRate ? (['share', 'share'] as const) : []),
      ...(against === null ? [] : [form]),
      ...others.map((each) => MEASURES[each].form),
    ],
    rows: rows.map((row, i) => [...labels.map((all) => all[i] ?? ''), ...cellsOf(row)]),
    total: [...by.map((_each, i) => (i === 0 ? 'All' : '')), ...cellsOf(total)],
  }
}

/** A table as CSV (RFC 4180), in which nothing is taken for a formula. */
export function tableCsv({ headings, rows }: Pick<AnswerTable, 'headings' | 'rows'>): string {
  return writeTable(
    [headings, ...rows].map((row) =>
      row.map((cell) => (typeof cell === 'string' ? escapeFormula(cell) : String(cell ?? ''))),
    ),
  )
}
