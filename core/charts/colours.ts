/** The face of everything but values people copy. */
export const TEXT = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif"

/** Colours of chart series, told apart in any colour vision; the order matters. */
export const SERIES = {
  light: ['#0C5A66', '#C4881C', '#7B3F68', '#3E8FB5', '#5A8043', '#A9432F'],
  dark: ['#6CC0CC', '#E0AC4F', '#C98BB6', '#79BBDB', '#98BD80', '#E08A75'],
} as const

/** Ink, hairlines and the one attention colour, as charts need them too. */
export const INKS = {
  light: { ink: '#1F2A30', quiet: '#5B676D', hairline: '#DDD8CC', sheet: '#FFFFFF', signal: '#D9541E' },
  dark: { ink: '#E9E6DE', quiet: '#A7B0B3', hairline: '#3A4348', sheet: '#1C2327', signal: '#FF9466' },
} as const
export type Scheme = keyof typeof INKS

export interface ChartColours {
  readonly series: readonly string[]
  /** From the least to the most of something that is shaded. */
  readonly ramp: readonly [string, string]
  /** Land on a map: the sea is the sheet. */
  readonly land: string
  readonly ink: string
  readonly quiet: string
  readonly hairline: string
  readonly sheet: string
  readonly signal: string
}

/** The colours of charts in each scheme. */
export const CHART_COLOURS: Readonly<Record<Scheme, ChartColours>> = {
  light: { series: SERIES.light, ramp: ['#DCE9EA', '#0C5A66'], land: '#EAE4D6', ...INKS.light },
  dark: { series: SERIES.dark, ramp: ['#2A3B40', '#6CC0CC'], land: '#343D42', ...INKS.dark },
}
