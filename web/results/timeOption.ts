import type { EChartsCoreOption } from 'echarts/core'
import type { Results } from '@flimbo/core/results'
import { number } from '@flimbo/core/formats'
import { TEXT } from '../ui/index.ts'
import type { ChartColours } from './Chart.tsx'

const FORMATS: Record<Results['unit'], Intl.DateTimeFormatOptions> = {
  hour: { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  week: { day: 'numeric', month: 'short', year: 'numeric' },
  month: { month: 'short', year: 'numeric' },
  quarter: { month: 'short', year: 'numeric' },
  year: { year: 'numeric' },
}

/** What a bucket is called, in the campaign's zone; an hour that comes twice has its offset beside it. */
export function bucketNames({ unit, zone, period }: Pick<Results, 'unit' | 'zone' | 'period'>): string[] {
  const format = new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...FORMATS[unit] })
  const names = period.buckets.map(({ start }) =>
    unit === 'week' ? `week of ${format.format(start)}` : format.format(start),
  )
  if (unit !== 'hour') return names
  const offset = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    timeZoneName: 'shortOffset',
    hour: '2-digit',
  })
  return names.map((name, i) =>
    name === names[i - 1] || name === names[i + 1]
      ? `${name} (${offset.format(period.buckets[i]?.start).split(' ').at(-1) ?? ''})`
      : name,
  )
}

/** The bucket a moment falls in. */
function bucketAt({ period }: Results, at: number): number {
  return period.buckets.findIndex(({ start, end }) => at >= start && at < end)
}

/** Scans over time as bars, unique scans as a line with dots, the period before as a dashed one, destination changes as upright marks. */
export function timeOption(results: Results, colours: ChartColours): EChartsCoreOption {
  const { period, before, changes } = results
  const [petrol = '', ochre = '', plum = ''] = colours.series
  // Numbered as in the list under the chart; several in one bucket share a mark.
  const changed = new Map<number, number[]>()
  changes.forEach(({ at }, i) => {
    const bucket = bucketAt(results, at)
    changed.set(bucket, [...(changed.get(bucket) ?? []), i + 1])
  })
  const axisText = { color: colours.quiet, fontSize: 12 }
  const few = period.buckets.length <= 62
  return {
    animation: false,
    textStyle: { fontFamily: TEXT },
    grid: { left: 8, right: 12, top: 40, bottom: 4, containLabel: true },
    legend: { top: 0, left: 0, itemWidth: 18, textStyle: { color: colours.ink, fontSize: 12 } },
    // Drawn on the canvas: the page's policy lets no inline styles in.
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      backgroundColor: colours.sheet,
      borderColor: colours.hairline,
      textStyle: { color: colours.ink, fontSize: 12 },
      valueFormatter: (value: unknown) => (typeof value === 'number' ? number(value) : '–'),
    },
    xAxis: {
      type: 'category',
      data: bucketNames(results),
      axisLabel: { ...axisText, hideOverlap: true },
      axisLine: { lineStyle: { color: colours.hairline } },
      axisTick: { show: false },
    },
    yAxis: {
      type: 'value',
      minInterval: 1,
      axisLabel: { ...axisText, formatter: (value: number) => number(value) },
      splitLine: { lineStyle: { color: colours.hairline } },
    },
    series: [
      {
        name: 'Scans',
        type: 'bar',
        data: period.buckets.map((b) => b.scans),
        itemStyle: { color: petrol },
        barCategoryGap: few ? '30%' : '5%',
        large: true,
        markLine: {
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
          data: [...changed].map(([bucket, numbers]) => ({
            xAxis: bucket,
            name: numbers.length > 1 ? `${String(numbers[0])}–${String(numbers.at(-1))}` : String(numbers[0]),
          })),
        },
      },
      {
        name: 'Unique scans',
        type: 'line',
        data: period.buckets.map((b) => b.uniques),
        itemStyle: { color: ochre },
        lineStyle: { width: 1.5 },
        symbol: 'circle',
        symbolSize: 5,
        showSymbol: few,
      },
      ...(before
        ? [
            {
              name: 'Scans, period before',
              type: 'line',
              data: before.buckets.map((b) => b.scans),
              itemStyle: { color: plum },
              lineStyle: { width: 1.5, type: 'dashed' },
              symbol: 'none',
            },
          ]
        : []),
    ],
  }
}
