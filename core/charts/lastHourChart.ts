import { LAST_HOUR_SECONDS } from '../scans/index.ts'
import type { ChartColours } from './colours.ts'
import { axisText, commonOption, tooltipOf, type ChartOption, chartGrid } from './drawn.ts'

/** A moment of the clock in a zone, to the second. */
const clock = (zone: string) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit', second: '2-digit' })

/**
 * The last hour, second by second.
 *
 * @param until the end of the last second, UTC ms
 * @param seconds how long before that each second with scans began, and how many it had
 */
export function lastHourChart(
  until: number,
  seconds: readonly (readonly [ago: number, scans: number])[],
  zone: string,
  colours: ChartColours,
): ChartOption {
  const counts = Array.from({ length: LAST_HOUR_SECONDS }, () => 0)
  for (const [ago, scans] of seconds)
    if (ago >= 1 && ago <= LAST_HOUR_SECONDS) counts[LAST_HOUR_SECONDS - ago] = scans
  const written = clock(zone)
  const [petrol = ''] = colours.series
  const axis = axisText({ colours })
  return {
    ...commonOption({ colours, hasPatterns: false }),
    grid: chartGrid({ top: 8 }),
    tooltip: tooltipOf({ colours }, { trigger: 'axis' }),
    xAxis: {
      type: 'category',
      data: counts.map((_n, i) => written.format(until - (LAST_HOUR_SECONDS - i) * 1000)),
      axisLabel: { ...axis, interval: 599 },
      axisLine: { lineStyle: { color: colours.hairline } },
      axisTick: { show: false },
    },
    yAxis: {
      type: 'value',
      minInterval: 1,
      axisLabel: axis,
      splitLine: { lineStyle: { color: colours.hairline } },
    },
    series: [
      // A second is less than a pixel wide: each bar is drawn wide enough to be seen.
      { name: 'Scans', type: 'bar', data: counts, barMinWidth: 2, itemStyle: { color: petrol } },
    ],
  }
}
