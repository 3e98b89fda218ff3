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

/** The largest keys of a side, as many as stand by themselves. */
function largestOf(amounts: readonly (readonly [key: string, amount: number])[]): ReadonlySet<string> {
  const sums = new Map<string, number>()
  for (const [key, amount] of amounts) sums.set(key, (sums.get(key) ?? 0) + amount)
  const ranked = [...sums].sort(([x, a], [y, b]) => b - a || (x < y ? -1 : 1))
  return new Set(ranked.slice(0, SIDE_MAX).map(([key]) => key))
}

/** Streams from one side to the next, the largest first. */
function between(
  parts: readonly { readonly ends: readonly [string, string]; readonly amount: number }[],
): Stream[] {
  const largest = [0, 1].map((side) => largestOf(parts.map(({ ends, amount }) => [ends[side] ?? '', amount])))
  const streams = new Map<string, Stream>()
  for (const { ends, amount } of parts) {
    const [from = null, to = null] = ends.map((key, side) => (largest[side]?.has(key) ? key : null))
    const id = JSON.stringify([from, to])
    const value = (streams.get(id)?.value ?? 0) + amount
    if (value > 0) streams.set(id, { from, to, value })
  }
  return [...streams.values()].sort((a, b) => b.value - a.value)
}

/** An answer by two dimensions as streams between their largest keys. Nothing of it is left out: what is small is summed up. */
export const streamsOf = (what: Measure, rows: readonly AnswerRow[]): Stream[] =>
  between(
    rows.map((row) => ({
      ends: [row.keys[0] ?? '', row.keys[1] ?? ''],
      amount: measured(what, row) ?? 0,
    })),
  )

/** The streams from the lanes of an answer on to where they lead by now; none where it is not by lane or variant. */
export function onwardStreams(
  what: Measure,
  by: readonly Dimension[],
  { rows, leads }: Pick<Answer, 'rows' | 'leads'>,
): Stream[] {
  const isOfLanes = by[1] === 'lane' || by[1] === 'variant'
  if (!isOfLanes || leads.length !== rows.length) return []
  return between(
    rows.map((row, i) => ({ ends: [row.keys[1] ?? '', leads[i] ?? ''], amount: measured(what, row) ?? 0 })),
  )
}

/** How high streams stand, in CSS pixels. */
export const flowHeight = (streams: readonly Stream[], onward: readonly Stream[] = []): number =>
  40 +
  ROW_PX *
    Math.max(
      4,
      new Set(streams.map(({ from }) => from)).size,
      new Set(streams.map(({ to }) => to)).size,
      new Set(onward.map(({ to }) => to)).size,
    )

/** Where counts flow from one dimension to another, such as from pieces to lanes, and from those on to where they lead. */
export function flowChart(
  drawn: Drawn,
  [first, second]: readonly [Dimension, Dimension],
  streams: readonly Stream[],
  onward: readonly Stream[] = [],
): ChartOption {
  const { what, answer, currency, colours } = drawn
  const name = (side: 'from' | 'to' | 'end', key: string | null) => `${side} ${key ?? '\u0000'}`
  const endLabel = (key: string | null) => key ?? 'All others'
  const label = (dimension: Dimension, key: string | null, names: Answer['names']) =>
    key === null ? 'All others' : keyLabel(dimension, key, names)
  const nodes = (side: 'from' | 'to', dimension: Dimension, colour: string) =>
    [...new Set(streams.map((stream) => stream[side]))].map((key) => ({
      name: name(side, key),
      depth: side === 'from' ? 0 : 1,
      itemStyle: { color: colour },
      label: { formatter: label(dimension, key, answer.names) },
    }))
  const [petrol = '', ochre = '', plum = ''] = colours.series
  const ends = [...new Set(onward.map(({ to }) => to))].map((key) => ({
    name: name('end', key),
    depth: 2,
    itemStyle: { color: plum },
    label: { formatter: endLabel(key) },
  }))
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
        data: [...nodes('from', first, petrol), ...nodes('to', second, ochre), ...ends],
        links: [
          ...streams.map(({ from, to, value }) => ({
            source: name('from', from),
            target: name('to', to),
            value,
            words: `${label(first, from, answer.names)} → ${label(second, to, answer.names)}`,
          })),
          ...onward.map(({ from, to, value }) => ({
            source: name('to', from),
            target: name('end', to),
            value,
            words: `${label(second, from, answer.names)} → ${endLabel(to)}, as it leads now`,
          })),
        ],
      },
    ],
  }
}
