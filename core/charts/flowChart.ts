import type { Dimension } from '../dimensions/index.ts'
import { measured, type AnswerRow, type Answer, type Measure } from '../results/index.ts'
import { commonOption, tooltipOf, type ChartOption, type Drawn } from './drawn.ts'
import { keyLabel } from './keyLabels.ts'
import { measureText } from './measureText.ts'

/** So many keys of each side stand by themselves; the rest are put together. */
const SIDE_MAX = 12
const ROW_PX = 30

/** One stream: from a key of the first dimension to one of the second; null for all the smaller ones together. */
export interface Stream {
  readonly from: string | null
  readonly to: string | null
  readonly value: number
}

/** An answer by two dimensions as streams between their largest keys. Nothing of it is left out: what is small is summed up. */
export function streamsOf(what: Measure, rows: readonly AnswerRow[]): Stream[] {
  const largest = [0, 1].map((side) => {
    const sums = new Map<string, number>()
    for (const row of rows) {
      const key = row.keys[side] ?? ''
      sums.set(key, (sums.get(key) ?? 0) + (measured(what, row) ?? 0))
    }
    const ranked = [...sums].sort(([x, a], [y, b]) => b - a || (x < y ? -1 : 1))
    return new Set(ranked.slice(0, SIDE_MAX).map(([key]) => key))
  })
  const streams = new Map<string, Stream>()
  for (const row of rows) {
    const [from = null, to = null] = row.keys.map((key, side) => (largest[side]?.has(key) ? key : null))
    const id = JSON.stringify([from, to])
    const value = (streams.get(id)?.value ?? 0) + (measured(what, row) ?? 0)
    if (value > 0) streams.set(id, { from, to, value })
  }
  return [...streams.values()].sort((a, b) => b.value - a.value)
}

/** How high streams stand, in CSS pixels. */
export const flowHeight = (streams: readonly Stream[]): number =>
  40 +
  ROW_PX *
    Math.max(4, new Set(streams.map(({ from }) => from)).size, new Set(streams.map(({ to }) => to)).size)

/** Where counts flow from one dimension to another, such as from pieces to lanes. */
export function flowChart(
  drawn: Drawn,
  [first, second]: readonly [Dimension, Dimension],
  streams: readonly Stream[],
): ChartOption {
  const { what, answer, currency, colours } = drawn
  const name = (side: 'from' | 'to', key: string | null) => `${side} ${key ?? '\u0000'}`
  const label = (dimension: Dimension, key: string | null, names: Answer['names']) =>
    key === null ? 'All others' : keyLabel(dimension, key, names)
  const nodes = (side: 'from' | 'to', dimension: Dimension, colour: string) =>
    [...new Set(streams.map((stream) => stream[side]))].map((key) => ({
      name: name(side, key),
      depth: side === 'from' ? 0 : 1,
      itemStyle: { color: colour },
      label: { formatter: label(dimension, key, answer.names) },
    }))
  const [petrol = '', ochre = ''] = colours.series
  return {
    ...commonOption(drawn),
    tooltip: tooltipOf(drawn, {
      trigger: 'item',
      formatter: ({
        data,
        value,
      }: {
        data: { label?: { formatter: string }; words?: string }
        value: number
      }) => `${data.words ?? data.label?.formatter ?? ''}: ${measureText(what, value, currency)}`,
    }),
    series: [
      {
        type: 'sankey',
        left: 8,
        right: 180,
        top: 8,
        bottom: 8,
        nodeGap: 6,
        nodeWidth: 12,
        layoutIterations: 16,
        draggable: false,
        emphasis: { focus: 'adjacency' },
        label: { color: colours.ink, fontSize: 12, width: 170, overflow: 'truncate' },
        lineStyle: { color: 'source', opacity: 0.28, curveness: 0.5 },
        data: [...nodes('from', first, petrol), ...nodes('to', second, ochre)],
        links: streams.map(({ from, to, value }) => ({
          source: name('from', from),
          target: name('to', to),
          value,
          words: `${label(first, from, answer.names)} → ${label(second, to, answer.names)}`,
        })),
      },
    ],
  }
}
