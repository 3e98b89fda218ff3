import { MEASURES } from '../results/index.ts'
import {
  beforeOf,
  commonOption,
  figureItems,
  legendOf,
  axisTooltip,
  type ChartOption,
  type Drawn,
  chartGrid,
  nameAxis,
} from './drawn.ts'
import { keyLabel } from './keyLabels.ts'
import { measureText } from './measureText.ts'
import { figureAxis } from './timeChart.ts'

/** So many bars stand under each other; the table has them all. */
export const BARS_MAX = 20
const NAME_PX = 180

/** One figure by what has no order of its own: lying bars, the first at the top, each with its figure. */
export function barsChart(drawn: Drawn): ChartOption {
  const { what, by, answer, against, currency, colours } = drawn
  const [dimension = 'piece'] = by
  const rows = answer.rows.slice(0, BARS_MAX)
  const [petrol = '', , plum = ''] = colours.series
  return {
    ...commonOption(drawn),
    grid: chartGrid({ top: against === null ? 4 : 32, right: 90 }),
    ...(against === null ? {} : { legend: legendOf(drawn) }),
    tooltip: axisTooltip(drawn, { axisPointer: { type: 'shadow' } }),
    xAxis: { ...figureAxis(drawn), axisLabel: { show: false }, splitLine: { show: false } },
    yAxis: nameAxis(
      drawn,
      rows.map((row) => keyLabel(dimension, row.keys[0] ?? '', answer.names)),
      NAME_PX,
    ),
    series: [
      {
        name: MEASURES[what].label,
        type: 'bar',
        data: figureItems(drawn, rows),
        itemStyle: { color: petrol },
        barMaxWidth: 18,
        label: {
          show: true,
          position: 'right',
          color: colours.ink,
          fontSize: 12,
          formatter: ({ value }: { value: number | null }) => measureText(what, value ?? null, currency),
        },
      },
      ...(against === null
        ? []
        : [
            {
              name: `${MEASURES[what].label}, ${against}`,
              type: 'bar',
              data: rows.map((row) => beforeOf(what, row)),
              itemStyle: { color: plum, opacity: 0.6 },
              barMaxWidth: 8,
            },
          ]),
    ],
  }
}
