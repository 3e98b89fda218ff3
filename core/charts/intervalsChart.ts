import { commonOption, tooltipOf, type ChartOption, chartGrid, nameAxis } from './drawn.ts'
import type { ChartColours } from './colours.ts'
import type { DrawnChart } from './drawAnswer.ts'

/** A figure with between what it may lie by chance; null where that is not said. */
export interface BoundedFigure {
  readonly name: string
  readonly value: number
  readonly between: { readonly low: number; readonly high: number } | null
}

interface Given {
  /** From the top down. */
  readonly rows: readonly BoundedFigure[]
  readonly write: (value: number) => string
  /** Where figures are held to something: an upright line there, and what it is called. */
  readonly mark: { readonly at: number; readonly name: string } | null
  readonly colours: ChartColours
}

const ROW_PX = 26
const NAME_PX = 220

/** Figures as lying bars; those that may lie between bounds as points with a line from one bound to the other. */
export function intervalsChart({ rows, write, mark, colours }: Given): Omit<DrawnChart, 'keysAt'> {
  const [petrol = '', , , sky = ''] = colours.series
  const isBounded = rows.some(({ between }) => between !== null)
  const label = {
    show: true,
    position: isBounded ? 'top' : 'right',
    color: colours.ink,
    fontSize: 12,
    formatter: ({ dataIndex }: { dataIndex: number }) => write(rows[dataIndex]?.value ?? 0),
  }
  const marked =
    mark === null
      ? {}
      : {
          markLine: {
            symbol: 'none',
            animation: false,
            lineStyle: { color: colours.signal, type: 'solid' },
            label: { formatter: mark.name, color: colours.signal, fontSize: 12, position: 'start' },
            data: [{ xAxis: mark.at }],
          },
        }
  const bounds = (name: 'low' | 'high') => rows.map(({ between, value }) => between?.[name] ?? value)
  const low = bounds('low')
  const series: ChartOption[] = isBounded
    ? [
        { type: 'bar', stack: 'bounds', data: low, itemStyle: { opacity: 0 }, barWidth: 4, silent: true },
        {
          type: 'bar',
          stack: 'bounds',
          data: bounds('high').map((high, i) => high - (low[i] ?? 0)),
          itemStyle: { color: sky },
          barWidth: 4,
          ...marked,
        },
        {
          type: 'line',
          data: rows.map(({ value }) => value),
          lineStyle: { opacity: 0 },
          symbol: 'circle',
          symbolSize: 9,
          itemStyle: { color: petrol },
          label: { ...label, position: 'top', fontSize: 11 },
        },
      ]
    : [
        {
          type: 'bar',
          data: rows.map(({ value }) => value),
          itemStyle: { color: petrol },
          barMaxWidth: 18,
          label,
          ...marked,
        },
      ]
  const height = 30 + (isBounded ? ROW_PX + 8 : ROW_PX) * Math.max(1, rows.length)
  return {
    height,
    option: {
      ...commonOption({ colours, hasPatterns: false }),
      grid: chartGrid({ top: 12, bottom: mark === null ? 4 : 24, right: 90 }),
      tooltip: tooltipOf({ colours }, { trigger: 'axis', axisPointer: { type: 'shadow' } }),
      xAxis: { type: 'value', axisLabel: { show: false }, splitLine: { show: false } },
      yAxis: nameAxis(
        { colours },
        rows.map(({ name }) => name),
        NAME_PX,
      ),
      series,
    },
  }
}
