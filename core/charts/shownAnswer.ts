import { isOfKind, timeKey, timePieces, type Dimension } from '../dimensions/index.ts'
import type { TimeMark } from '../results/index.ts'
import { spanOfDays } from '../time/index.ts'
import type { Point } from '../conditions/index.ts'
import { answerKinds, chartKinds, type ChartKind } from './chartKind.ts'
import type { ChartColours } from './colours.ts'
import { drawAnswer, type DrawnChart } from './drawAnswer.ts'
import type { ChartMark, Drawn } from './drawn.ts'
import { MAP_SHAPE, mapChart } from './mapChart.ts'

/** An answer with all that a chart of it needs but how it looks. */
export interface ShownAnswer extends Omit<Drawn, 'colours' | 'hasPatterns'> {
  readonly zone: string
  readonly from: string
  readonly to: string
}

/** Moments as a chart by time marks them, each called by its place in their list; none where it is by something else. */
export const chartMarks = (
  marks: readonly Pick<TimeMark, 'at'>[],
  unit: Dimension | undefined,
  zone: string,
): ChartMark[] =>
  unit !== undefined && isOfKind(unit, 'time')
    ? marks.map(({ at }, i) => ({ key: timeKey(zone, unit, at), name: String(i + 1) }))
    : []

/** All pieces of time of the period, where an answer is by time and something else: none is left out that nobody scanned in. */
export function crossedTimeKeys(by: readonly Dimension[], { zone, from, to }: ShownAnswer): string[] {
  const unit = by.length === 2 ? by.find((each) => isOfKind(each, 'time')) : undefined
  return unit && isOfKind(unit, 'time')
    ? timePieces(zone, spanOfDays(zone, from, to), unit).map(({ key }) => key)
    : []
}

/** The way an answer is drawn that was wanted, or the usual one where it cannot be drawn so. */
export function kindFor({ what, by }: Pick<ShownAnswer, 'what' | 'by'>, wanted: ChartKind | null): ChartKind {
  const kinds = answerKinds(what, by)
  return wanted !== null && kinds.includes(wanted) ? wanted : kinds[0]
}

interface Look {
  readonly colours: ChartColours
  readonly hasPatterns: boolean
}

/**
 * Draws an answer as a screen shows it. A map is not among it: see `drawMap`.
 *
 * @param kind one that `answerKinds` gives
 */
export function drawShown(
  kind: Exclude<ChartKind, 'map'>,
  shown: ShownAnswer,
  look: Look,
  timeKeys: readonly string[] = crossedTimeKeys(shown.by, shown),
): DrawnChart {
  return drawAnswer(kind, { ...shown, ...look }, timeKeys)
}

/** What stands for a map, or for a table, where neither can be: the usual chart. */
export const plainKind = (by: readonly Dimension[]): Exclude<ChartKind, 'map'> =>
  chartKinds(by)[0] as Exclude<ChartKind, 'map'>

/** A map of an answer by country or city, so high (CSS pixels) where it is `width` wide. */
export function drawMap(
  shown: ShownAnswer,
  colours: ChartColours,
  piece: Point | null,
  width: number,
): Omit<DrawnChart, 'keysAt'> {
  const option = mapChart({ ...shown, colours, hasPatterns: false, marks: [], chosen: [] }, piece)
  return { option, height: Math.round(width / MAP_SHAPE) }
}
