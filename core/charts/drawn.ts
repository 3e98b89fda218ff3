import type { Dimension } from '../dimensions/index.ts'
import type { Answer, AnswerRow, Measure } from '../results/index.ts'
import { measured } from '../results/index.ts'
import { TEXT, type ChartColours } from './colours.ts'
import { measureText } from './measureText.ts'

/** A moment that is marked on a chart of time: by the key of the piece of time it falls in, and a short name. */
export interface ChartMark {
  readonly key: string
  readonly name: string
}

/** What a piece of time was expected to bring, by its key. */
export interface ExpectedPiece {
  readonly key: string
  readonly expected: number
  readonly low: number
  readonly high: number
}

/** An answer that is to be drawn. */
export interface Drawn {
  readonly what: Measure
  /** What it was asked by: one or two. */
  readonly by: readonly Dimension[]
  readonly answer: Pick<Answer, 'rows' | 'names' | 'spots' | 'leads'>
  readonly colours: ChartColours
  /** ISO 4217. */
  readonly currency: string
  /** What figures are held against is called so; null where they are held against nothing. */
  readonly against: string | null
  readonly marks: readonly ChartMark[]
  /** What the pieces of time were expected to bring, where that is known. */
  readonly expected?: readonly ExpectedPiece[]
  /** Keys of the first dimension that are chosen: the others stand back. */
  readonly chosen: readonly string[]
  /** Whether areas are told apart by patterns too. */
  readonly hasPatterns: boolean
}

/** An option of ECharts. */
export type ChartOption = Readonly<Record<string, unknown>>

/** The figure that a row is held against; null where it is held against nothing, or there was none. */
export const beforeOf = (what: Measure, { before }: Pick<AnswerRow, 'before'>): number | null =>
  before && measured(what, before)

/** What all charts have in common. */
export function commonOption({ colours, hasPatterns }: Pick<Drawn, 'colours' | 'hasPatterns'>): ChartOption {
  return {
    animation: false,
    color: [...colours.series],
    textStyle: { fontFamily: TEXT, color: colours.ink },
    // What a chart shows is said by whoever draws it.
    aria: { enabled: true, label: { enabled: false }, decal: { show: hasPatterns } },
  }
}

/** The figures of rows as the parts of a series: those that are chosen stand out. */
export function figureItems({ what, answer, chosen }: Drawn, rows: readonly AnswerRow[] = answer.rows) {
  return rows.map((row) => {
    const value = measured(what, row)
    if (chosen.length === 0) return value
    return { value, itemStyle: { opacity: chosen.includes(row.keys[0] ?? '') ? 1 : 0.3 } }
  })
}

/** A tooltip that is drawn on the canvas: the page's policy lets no inline styles in. */
export function tooltipOf({ colours }: Pick<Drawn, 'colours'>, more: ChartOption): ChartOption {
  return {
    renderMode: 'richText',
    confine: true,
    backgroundColor: colours.sheet,
    borderColor: colours.hairline,
    textStyle: { color: colours.ink, fontSize: 12 },
    ...more,
  }
}

/** One that says the figures of all that stands at a place of an axis. */
export const axisTooltip = (drawn: Drawn, more: ChartOption = {}): ChartOption =>
  tooltipOf(drawn, {
    trigger: 'axis',
    valueFormatter: (value: unknown) =>
      measureText(drawn.what, typeof value === 'number' ? value : null, drawn.currency),
    ...more,
  })

/** Room for a chart with its axes' texts, in CSS pixels. */
export const chartGrid = (room: {
  readonly top: number
  readonly bottom?: number
  readonly right?: number
}): ChartOption => ({ left: 8, right: 12, bottom: 4, ...room, ...CONTAINED })
/** What is written at the axes stands within the room, too. */
export const CONTAINED = { outerBoundsMode: 'same', outerBoundsContain: 'axisLabel' } as const

/** An axis of names, from the top down. */
export const nameAxis = (
  { colours }: Pick<Drawn, 'colours'>,
  names: readonly string[],
  widthPx: number,
): ChartOption => ({
  type: 'category',
  inverse: true,
  data: names,
  axisLabel: { ...axisText({ colours }), color: colours.ink, width: widthPx, overflow: 'truncate' },
  axisLine: { lineStyle: { color: colours.hairline } },
  axisTick: { show: false },
})

export const axisText = ({ colours }: Pick<Drawn, 'colours'>) => ({ color: colours.quiet, fontSize: 12 })
export const legendOf = ({ colours }: Drawn): ChartOption => ({
  type: 'scroll',
  top: 0,
  left: 0,
  itemWidth: 18,
  textStyle: { color: colours.ink, fontSize: 12 },
  pageTextStyle: { color: colours.ink },
  pageIconColor: colours.ink,
})
