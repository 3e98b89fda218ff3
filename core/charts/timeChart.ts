import { MEASURES } from '../results/index.ts'
import {
  axisText,
  beforeOf,
  commonOption,
  figureItems,
  legendOf,
  axisTooltip,
  type ChartOption,
  type Drawn,
  chartGrid,
} from './drawn.ts'
import { keyLabels } from './keyLabels.ts'
import { measureShort } from './measureText.ts'

/** More pieces of time than this stand without gaps and dots. */
const FEW = 62

/** An axis of keys in their order. */
export function keyAxis(drawn: Drawn, labels: readonly string[]): ChartOption {
  return {
    type: 'category',
    data: labels,
    axisLabel: { ...axisText(drawn), hideOverlap: true },
    axisLine: { lineStyle: { color: drawn.colours.hairline } },
    axisTick: { show: false },
  }
}

/** An axis of figures. */
export function figureAxis(drawn: Drawn): ChartOption {
  const { what, currency, colours } = drawn
  return {
    type: 'value',
    ...(MEASURES[what].form === 'count' ? { minInterval: 1 } : {}),
    axisLabel: { ...axisText(drawn), formatter: (value: number) => measureShort(what, value, currency) },
    splitLine: { lineStyle: { color: colours.hairline } },
  }
}

/** Upright marks, those of one piece of time together. */
function markLine({ marks, colours }: Drawn, keys: readonly string[]): ChartOption {
  const byPlace = new Map<number, string[]>()
  for (const { key, name } of marks) {
    const place = keys.indexOf(key)
    if (place >= 0) byPlace.set(place, [...(byPlace.get(place) ?? []), name])
  }
  return {
    symbol: ['none', 'triangle'],
    symbolSize: 8,
    animation: false,
    lineStyle: { color: colours.signal, type: 'solid', width: 1.5 },
    label: {
      color: colours.signal,
      fontSize: 12,
      fontWeight: 'bold',
      formatter: ({ name }: { name: string }) => name,
    },
    data: [...byPlace].map(([place, names]) => ({
      xAxis: place,
      name: names.length > 1 ? `${names[0] ?? ''}–${names.at(-1) ?? ''}` : (names[0] ?? ''),
    })),
  }
}

/** What was expected: a dashed line, and the band in which 95 of 100 days lie. */
function expectedSeries({ expected = [], colours }: Drawn, keys: readonly string[]): ChartOption[] {
  if (expected.length === 0) return []
  const byKey = new Map(expected.map((each) => [each.key, each]))
  const known = keys.map((key) => byKey.get(key))
  const [, , , sky = ''] = colours.series
  // Behind the bars.
  const still = {
    type: 'line',
    z: 0,
    symbol: 'none',
    silent: true,
    stack: 'expected',
    tooltip: { show: false },
  }
  return [
    {
      name: 'Expected',
      type: 'line',
      symbol: 'none',
      data: known.map((each) => (each ? Math.round(each.expected * 10) / 10 : null)),
      itemStyle: { color: sky },
      lineStyle: { width: 1.5, type: 'dotted' },
    },
    { ...still, data: known.map((each) => each?.low ?? null), lineStyle: { opacity: 0 } },
    {
      ...still,
      data: known.map((each) => (each ? each.high - each.low : null)),
      lineStyle: { opacity: 0 },
      areaStyle: { color: sky, opacity: 0.18 },
    },
  ]
}

/**
 * One figure over what has an order of its own: time that goes on, time that comes again, distance. Counts are bars, rates
 * are lines with gaps where there is no figure; beside scans the unique ones, and dashed what they are held against.
 */
export function timeChart(drawn: Drawn): ChartOption {
  const { what, by, answer, against, colours } = drawn
  const [dimension = 'day'] = by
  const keys = answer.rows.map((row) => row.keys[0] ?? '')
  const labels = keyLabels(dimension, keys, answer.names)
  const isFew = keys.length <= FEW
  const isCount = MEASURES[what].form === 'count'
  const line = { type: 'line', symbol: 'circle', symbolSize: 5, lineStyle: { width: 1.5 }, showSymbol: isFew }
  const [petrol = '', ochre = '', plum = ''] = colours.series
  return {
    ...commonOption(drawn),
    grid: chartGrid({ top: 40 }),
    legend: legendOf(drawn),
    tooltip: axisTooltip(drawn),
    xAxis: keyAxis(drawn, labels),
    yAxis: figureAxis(drawn),
    series: [
      {
        name: MEASURES[what].label,
        ...(isCount
          ? { type: 'bar', barCategoryGap: isFew ? '30%' : '5%', large: keys.length > 2000 }
          : line),
        data: figureItems(drawn),
        itemStyle: { color: petrol },
        markLine: markLine(drawn, keys),
      },
      ...(what === 'scans'
        ? [
            {
              name: MEASURES.uniques.label,
              ...line,
              data: answer.rows.map(({ uniques }) => uniques),
              itemStyle: { color: ochre },
            },
          ]
        : []),
      ...expectedSeries(drawn, keys),
      ...(against === null
        ? []
        : [
            {
              name: `${MEASURES[what].label}, ${against}`,
              ...line,
              data: answer.rows.map((row) => beforeOf(what, row)),
              itemStyle: { color: plum },
              lineStyle: { width: 1.5, type: 'dashed' },
              symbol: 'none',
            },
          ]),
    ],
  }
}
