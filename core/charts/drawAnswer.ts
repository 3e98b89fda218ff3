import { isOfKind, type Dimension } from '../dimensions/index.ts'
import { barsChart, BARS_MAX } from './barsChart.ts'
import type { ChartKind } from './chartKind.ts'
import type { ChartOption, Drawn } from './drawn.ts'
import { flowChart, flowHeight, onwardStreams, streamsOf } from './flowChart.ts'
import { crossedCells, heatChart, weekCells } from './heatChart.ts'
import { linesChart, linesOf, MULTIPLES_MAX, multiplesChart } from './linesChart.ts'
import { timeChart } from './timeChart.ts'

/** A chart: what ECharts is told, how high it stands (CSS pixels), and which keys each of its parts stands for. */
export interface DrawnChart {
  readonly option: ChartOption
  readonly height: number
  /** The keys that a bar, a point or a cell stands for, by its place in its series and the place of that. */
  readonly keysAt: (dataIndex: number, seriesIndex: number) => readonly string[]
}

const ROW_PX = 26
const CHART_PX = 280
const MULTIPLE_PX = 150

/** @param timeKeys all pieces of time of the period, where the answer is by time and something else */
export function drawAnswer(
  kind: Exclude<ChartKind, 'map'>,
  drawn: Drawn,
  timeKeys: readonly string[],
): DrawnChart {
  const { what, by, answer } = drawn
  const keysOfRow = (dataIndex: number) => answer.rows[dataIndex]?.keys ?? []
  switch (kind) {
    case 'time':
      return { option: timeChart(drawn), height: CHART_PX, keysAt: keysOfRow }
    case 'bars': {
      const height = 24 + ROW_PX * Math.max(1, Math.min(BARS_MAX, answer.rows.length))
      return { option: barsChart(drawn), height, keysAt: keysOfRow }
    }
    case 'week':
      return { option: heatChart(drawn, weekCells(what, answer)), height: CHART_PX, keysAt: keysOfRow }
    case 'lines':
    case 'multiples': {
      const pair = pairOf(by)
      const isTimeFirst = isOfKind(pair[0], 'time')
      const lines = linesOf(what, pair, isTimeFirst, answer, timeKeys)
      const rows = Math.ceil(Math.min(MULTIPLES_MAX, lines.lines.length) / 3)
      return {
        option: kind === 'lines' ? linesChart(drawn, lines) : multiplesChart(drawn, lines),
        height: kind === 'lines' ? CHART_PX : Math.max(1, rows) * MULTIPLE_PX,
        keysAt(dataIndex, seriesIndex) {
          const [time, other] = [timeKeys[dataIndex], lines.lines[seriesIndex]?.key]
          if (time === undefined || other === undefined) return []
          return isTimeFirst ? [time, other] : [other, time]
        },
      }
    }
    case 'flow': {
      const streams = streamsOf(what, answer.rows)
      const onward = onwardStreams(what, by, answer)
      return {
        option: flowChart(drawn, pairOf(by), streams, onward),
        height: flowHeight(streams, onward),
        // Streams and their ends are parts of one series: the table is where they are chosen.
        keysAt: () => [],
      }
    }
    case 'cells': {
      const cells = crossedCells(what, pairOf(by), answer)
      return {
        option: heatChart(drawn, cells),
        height: 70 + ROW_PX * Math.max(3, cells.down.length),
        keysAt: (dataIndex) => cells.keys[dataIndex] ?? [],
      }
    }
  }
}

const pairOf = ([first = 'day', second = 'piece']: readonly Dimension[]): [Dimension, Dimension] => [
  first,
  second,
]
