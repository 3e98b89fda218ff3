import { hasOrder, isOfKind, type Dimension } from '../dimensions/index.ts'
import { MEASURES, type Measure } from '../results/index.ts'

/** How an answer is drawn. */
export const CHART_KINDS = ['time', 'lines', 'multiples', 'week', 'bars', 'cells', 'flow', 'map'] as const
export type ChartKind = (typeof CHART_KINDS)[number]

/** What each way of drawing is called where it is chosen. */
export const CHART_NAMES: Readonly<Record<ChartKind, string>> = {
  time: 'Chart',
  lines: 'Lines',
  multiples: 'Side by side',
  week: 'Chart',
  bars: 'Bars',
  cells: 'Cells',
  flow: 'Flow',
  map: 'Map',
}

/** The ways an answer by some dimensions can be drawn, the usual one first. */
export function chartKinds(by: readonly Dimension[]): readonly [ChartKind, ...ChartKind[]] {
  const [first = 'day', second] = by
  if (second !== undefined)
    return isOfKind(first, 'time') || isOfKind(second, 'time') ? ['lines', 'multiples'] : ['cells', 'flow']
  if (first === 'hourOfWeek') return ['week']
  if (first === 'country' || first === 'city') return ['bars', 'map']
  return hasOrder(first) ? ['time'] : ['bars']
}

/** The ways an answer to a question can be drawn: only what is counted flows. */
export function answerKinds(what: Measure, by: readonly Dimension[]): readonly [ChartKind, ...ChartKind[]] {
  const [usual, ...others] = chartKinds(by)
  return [usual, ...others.filter((kind) => kind !== 'flow' || MEASURES[what].form === 'count')]
}
