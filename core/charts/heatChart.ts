import { RECURRING_KEYS, type Dimension } from '../dimensions/index.ts'
import { measured, type Answer, type Measure } from '../results/index.ts'
import { axisText, commonOption, tooltipOf, type ChartOption, type Drawn, chartGrid } from './drawn.ts'
import { keyLabel } from './keyLabels.ts'
import { measureShort, measureText } from './measureText.ts'

/** Figures in cells: across and down, each by its key. */
export interface Cells {
  readonly across: readonly string[]
  readonly down: readonly string[]
  /** Places across and down, with the figure; null where there is none. */
  readonly values: readonly (readonly [across: number, down: number, value: number | null])[]
  /** The keys of each of these. */
  readonly keys: readonly (readonly string[])[]
}

const CELLS_MAX = 24
/** Figures are written into cells that are no more than so many across. */
const WRITTEN_ACROSS_MAX = 14

/** Hours of the week as cells: hours across, days down. */
export function weekCells(what: Measure, { rows }: Pick<Answer, 'rows'>): Cells {
  const { hourOfDay, weekday } = RECURRING_KEYS
  const values = rows.map(({ keys: [key = ''], ...row }): [number, number, number | null] => [
    hourOfDay.indexOf(key.slice(2)),
    weekday.indexOf(key.slice(0, 1)),
    measured(what, row),
  ])
  return {
    across: hourOfDay.map((key) => keyLabel('hourOfDay', key)),
    down: weekday.map((key) => keyLabel('weekday', key)),
    values,
    keys: rows.map((row) => row.keys),
  }
}

/** Two dimensions as cells: the first across, the second down; the largest keys of each. */
export function crossedCells(
  what: Measure,
  [first, second]: readonly [Dimension, Dimension],
  { rows, names }: Pick<Answer, 'rows' | 'names'>,
): Cells {
  const keysOf = (side: 0 | 1, dimension: Dimension) => orderedKeys(rows, side, dimension).slice(0, CELLS_MAX)
  const [across, down] = [keysOf(0, first), keysOf(1, second)]
  const found = rows.flatMap(({ keys, ...row }) => {
    const [x, y] = [across.indexOf(keys[0] ?? ''), down.indexOf(keys[1] ?? '')]
    return x < 0 || y < 0 ? [] : [{ keys, value: [x, y, measured(what, row)] as const }]
  })
  return {
    across: across.map((key) => keyLabel(first, key, names)),
    down: down.map((key) => keyLabel(second, key, names)),
    values: found.map(({ value }) => value),
    keys: found.map(({ keys }) => keys),
  }
}

/** Keys of one side: in their own order, or those of most scans first. */
function orderedKeys(rows: Answer['rows'], side: 0 | 1, dimension: Dimension): string[] {
  const scans = new Map<string, number>()
  for (const { keys, scans: n, leads } of rows)
    scans.set(keys[side] ?? '', (scans.get(keys[side] ?? '') ?? 0) + n + leads)
  if (dimension in RECURRING_KEYS)
    return RECURRING_KEYS[dimension as keyof typeof RECURRING_KEYS].filter((key) => scans.has(key))
  return [...scans].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1)).map(([key]) => key)
}

/** Cells that are the darker the more there is, with the figures in them where there is room. */
export function heatChart(drawn: Drawn, { across, down, values }: Cells): ChartOption {
  const { what, currency, colours } = drawn
  const known = values.flatMap(([, , value]) => (value === null ? [] : [value]))
  const most = Math.max(0, ...known)
  const axis = (labels: readonly string[]) => ({
    type: 'category',
    data: labels,
    axisLabel: { ...axisText(drawn), width: 150, overflow: 'truncate', hideOverlap: true },
    axisLine: { show: false },
    axisTick: { show: false },
    splitArea: { show: false },
  })
  return {
    ...commonOption(drawn),
    grid: chartGrid({ top: 8, bottom: 36 }),
    tooltip: tooltipOf(drawn, {
      formatter: ({ value: [x, y, value] }: { value: [number, number, number | null] }) =>
        `${down[y] ?? ''} ${across[x] ?? ''}\n${measureText(what, value, currency)}`,
    }),
    xAxis: axis(across),
    yAxis: { ...axis(down), inverse: true },
    visualMap: {
      min: 0,
      max: most === 0 ? 1 : most,
      orient: 'horizontal',
      left: 'center',
      bottom: 0,
      itemHeight: 120,
      itemWidth: 10,
      inRange: { color: [...colours.ramp] },
      textStyle: { color: colours.quiet, fontSize: 12 },
      formatter: (value: number) => measureShort(what, value, currency),
    },
    series: [
      {
        type: 'heatmap',
        data: values.map(([x, y, value]) => ({
          value: [x, y, value],
          // Text is readable on the lighter half of the ramp in ink, on the darker half in the colour of the sheet.
          label: { color: (value ?? 0) > most / 2 ? colours.sheet : colours.ink },
        })),
        label: {
          show: across.length <= WRITTEN_ACROSS_MAX,
          fontSize: 11,
          formatter: ({ value: [, , value] }: { value: [number, number, number | null] }) =>
            measureShort(what, value, currency),
        },
        itemStyle: { borderColor: colours.sheet, borderWidth: 1 },
      },
    ],
  }
}
