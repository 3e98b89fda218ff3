import { type Dimension } from '../dimensions/index.ts'
import { measured, MEASURES, type Answer, type Measure } from '../results/index.ts'
import {
  commonOption,
  legendOf,
  axisTooltip,
  type ChartOption,
  type Drawn,
  chartGrid,
  CONTAINED,
} from './drawn.ts'
import { keyLabel, keyLabels } from './keyLabels.ts'
import { figureAxis, keyAxis } from './timeChart.ts'

/** As many lines as there are colours and shapes. */
export const LINES_MAX = 6
/** As many small charts beside each other. */
export const MULTIPLES_MAX = 12
const SHAPES = ['circle', 'rect', 'triangle', 'diamond', 'emptyCircle', 'emptyRect'] as const
const FEW = 62

/** A figure over time, by something else: what each key comes to in each piece of time, the largest keys first. */
export interface Lines {
  readonly time: Dimension
  readonly other: Dimension
  readonly timeKeys: readonly string[]
  readonly lines: readonly { readonly key: string; readonly values: readonly (number | null)[] }[]
}

/** @param timeKeys all pieces of time, those without anything too */
export function linesOf(
  what: Measure,
  by: readonly [Dimension, Dimension],
  isTimeFirst: boolean,
  { rows }: Pick<Answer, 'rows'>,
  timeKeys: readonly string[],
): Lines {
  const [time, other] = isTimeFirst ? by : [by[1], by[0]]
  const places = new Map(timeKeys.map((key, i) => [key, i]))
  const isCount = MEASURES[what].form === 'count'
  const found = new Map<string, { all: number; values: (number | null)[] }>()
  for (const row of rows) {
    const [timeKey = '', key = ''] = isTimeFirst ? row.keys : [row.keys[1], row.keys[0]]
    const there = found.get(key) ?? { all: 0, values: timeKeys.map(() => (isCount ? 0 : null)) }
    found.set(key, there)
    there.all += row.scans + row.leads + row.goals + row.arrivals
    const place = places.get(timeKey)
    if (place !== undefined) there.values[place] = measured(what, row)
  }
  const lines = [...found]
    .sort(([a, x], [b, y]) => y.all - x.all || (a < b ? -1 : 1))
    .map(([key, { values }]) => ({ key, values }))
  return { time, other, timeKeys, lines }
}

/** The largest keys as lines over each other, each with a colour and a shape of its own. */
export function linesChart(drawn: Drawn, { time, other, timeKeys, lines }: Lines): ChartOption {
  const { answer } = drawn
  return {
    ...commonOption(drawn),
    grid: chartGrid({ top: 40 }),
    legend: legendOf(drawn),
    tooltip: axisTooltip(drawn),
    xAxis: keyAxis(drawn, keyLabels(time, timeKeys)),
    yAxis: figureAxis(drawn),
    series: lines.slice(0, LINES_MAX).map(({ key, values }, i) => ({
      name: keyLabel(other, key, answer.names),
      type: 'line',
      data: values,
      symbol: SHAPES[i],
      symbolSize: 6,
      showSymbol: timeKeys.length <= FEW,
      lineStyle: { width: 1.5 },
    })),
  }
}

const COLUMNS = 3
const [GAP_X, GAP_Y] = [2, 9]

/** The largest keys as small charts beside each other, all on one scale. */
export function multiplesChart(drawn: Drawn, { time, other, timeKeys, lines }: Lines): ChartOption {
  const { what, answer, colours } = drawn
  const shown = lines.slice(0, MULTIPLES_MAX)
  const rows = Math.max(1, Math.ceil(shown.length / COLUMNS))
  const [width, height] = [100 / COLUMNS, 100 / rows]
  const most = Math.max(1e-9, ...shown.flatMap(({ values }) => values.map((value) => value ?? 0)))
  const labels = keyLabels(time, timeKeys)
  const at = (i: number) => ({ column: i % COLUMNS, row: Math.floor(i / COLUMNS) })
  const [petrol = ''] = colours.series
  return {
    ...commonOption(drawn),
    title: shown.map(({ key }, i) => ({
      text: keyLabel(other, key, answer.names),
      left: `${String(at(i).column * width + GAP_X)}%`,
      top: `${String(at(i).row * height)}%`,
      textStyle: { color: colours.ink, fontSize: 12, fontWeight: 'normal', width: 240, overflow: 'truncate' },
    })),
    grid: shown.map((_line, i) => ({
      left: `${String(at(i).column * width + GAP_X)}%`,
      width: `${String(width - 2 * GAP_X)}%`,
      top: `${String(at(i).row * height + GAP_Y)}%`,
      height: `${String(height - 1.8 * GAP_Y)}%`,
      ...CONTAINED,
    })),
    tooltip: axisTooltip(drawn),
    xAxis: shown.map((_line, i) => ({
      ...keyAxis(drawn, labels),
      gridIndex: i,
      axisLabel: { show: i >= shown.length - COLUMNS, color: colours.quiet, fontSize: 11, hideOverlap: true },
    })),
    yAxis: shown.map((_line, i) => ({ ...figureAxis(drawn), gridIndex: i, max: most, splitNumber: 2 })),
    series: shown.map(({ key, values }, i) => ({
      name: keyLabel(other, key, answer.names),
      type: MEASURES[what].form === 'count' ? 'bar' : 'line',
      data: values,
      xAxisIndex: i,
      yAxisIndex: i,
      itemStyle: { color: petrol },
      barCategoryGap: '10%',
      symbolSize: 4,
    })),
  }
}
