import { hasOrder, isOfKind, type Dimension } from '../dimensions/index.ts'

/** How an answer is drawn. */
export type ChartKind = 'time' | 'lines' | 'multiples' | 'week' | 'bars' | 'cells' | 'flow' | 'map'

/** The ways an answer by some dimensions can be drawn, the usual one first. */
export function chartKinds(by: readonly Dimension[]): readonly [ChartKind, ...ChartKind[]] {
  const [first = 'day', second] = by
  if (second !== undefined)
    return isOfKind(first, 'time') || isOfKind(second, 'time') ? ['lines', 'multiples'] : ['cells', 'flow']
  if (first === 'hourOfWeek') return ['week']
  if (first === 'country' || first === 'city') return ['bars', 'map']
  return hasOrder(first) ? ['time'] : ['bars']
}
