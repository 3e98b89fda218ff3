import { changeOf, measureText, rowLabels, whereHeld } from '../charts/index.ts'
import { DIMENSIONS } from '../dimensions/index.ts'
import { bounds, number, quantity } from '../formats/index.ts'
import { intervalOf, isRanked, measured, MEASURES, type AnswerRow } from '../results/index.ts'
import type { ReportPart } from './document.ts'
import type { MadeQuestion } from './made.ts'

type Table = Extract<ReportPart, { kind: 'table' }>

/** The rows of an answer as a page shows them; null where none are wanted or there are none. */
export function shownTable(question: MadeQuestion, currency: string): Table | null {
  const { what, by, answer, against, rows: wanted, title } = question
  if (wanted === 0 || answer.rows.length === 0) return null
  const { label } = MEASURES[what]
  const isRate = MEASURES[what].form === 'share'
  const beside = what === 'scans' ? ('uniques' as const) : ('scans' as const)
  const labels = rowLabels(by, answer)
  const where = whereHeld(question.before)
  const cells = (row: AnswerRow, i: number): string[] => {
    const interval = intervalOf(what, row)
    const value = measureText(what, measured(what, row), currency)
    return [
      ...labels.map((all) => all[i] ?? ''),
      isRanked(what, row) ? value : `${value}, of few scans`,
      ...(isRate ? [interval ? bounds(interval) : '–'] : []),
      ...(against === null ? [] : [changeOf(what, row, row.before, currency, where)]),
      number(row[beside]),
    ]
  }
  const left = answer.rowsTotal - Math.min(wanted, answer.rows.length)
  return {
    kind: 'table',
    caption: title,
    headings: [
      ...by.map((dimension) => DIMENSIONS[dimension].label),
      label,
      ...(isRate ? ['95 % lie in'] : []),
      ...(against === null ? [] : [`Against ${against}`]),
      MEASURES[beside].label,
    ],
    figuresFrom: by.length,
    rows: answer.rows.slice(0, wanted).map(cells),
    more: left > 0 ? `And ${quantity(left, 'more row')}.` : '',
  }
}
