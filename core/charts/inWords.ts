import { DIMENSIONS, filterEntries, type Dimension, type Filters } from '../dimensions/index.ts'
import { bounds, day, dayRange, moment, number, quantity } from '../formats/index.ts'
import {
  intervalOf,
  measured,
  MEASURES,
  type Answer,
  type AnswerRow,
  type Figures,
  type Measure,
  type TimeMark,
  type HeldAgainst,
} from '../results/index.ts'
import { dayIn } from '../time/index.ts'
import { keyLabel } from './keyLabels.ts'
import { measureText } from './measureText.ts'

const NAMED_MAX = 3

/** What a chart shows, for those who do not see it: "Scans by day: 12 scans, 3 rows". */
export const answerInWords = (title: string, { total, rows }: Pick<Answer, 'total' | 'rows'>): string =>
  `${title}: ${quantity(total.scans, 'scan')}, ${quantity(rows.length, 'row')}`

/** What a question is called: "Scans by day and medium". */
export const questionTitle = (what: Measure, by: readonly Dimension[]): string =>
  [
    MEASURES[what].label,
    ...(by.length > 0 ? ['by', by.map((each) => DIMENSIONS[each].label.toLowerCase()).join(' and ')] : []),
  ].join(' ')

/** What figures are narrowed to, a text for each dimension: "Medium: print or label". */
export const filtersInWords = (
  filters: Filters,
  names: Answer['names'],
): { readonly dimension: Dimension; readonly text: string }[] =>
  filterEntries(filters).map(([dimension, keys]) => {
    const named = keys.slice(0, NAMED_MAX).map((key) => keyLabel(dimension, key, names))
    const more = keys.length > NAMED_MAX ? ` and ${number(keys.length - NAMED_MAX)} more` : ''
    return { dimension, text: `${DIMENSIONS[dimension].label}: ${named.join(' or ')}${more}` }
  })

/** Where figures were that others are held against: in days before, or there, in another campaign. */
export const whereHeld = (before: HeldAgainst | null): 'before' | 'there' =>
  before === null || before.campaign === null ? 'before' : 'there'

/** What stands in the place of a chart with nothing in it. */
export const NOTHING_COUNTED = 'Nothing was counted in these days.'

/** What figures are held against: "“Seal watching”, 3 Jul 2026 to 9 Jul 2026". */
export const heldInWords = (before: HeldAgainst): string =>
  `${before.campaign === null ? '' : `“${before.campaign}”, `}${dayRange(before)}`

const TIMES_FROM = 10
/**
 * How a figure stands against another one: "+12.5 % against 40", or "12 times 40".
 *
 * @param where the other one was, as `whereHeld` says it
 */
export function changeInWords(
  now: number | null,
  before: number | null,
  write: (value: number) => string,
  where: 'before' | 'there' = 'before',
): string {
  if (before === null) return now === null ? '\u00a0' : `no figure ${where}`
  if (now === null) return `${write(before)} ${where}`
  if (before === 0) return now === 0 ? `none ${where} either` : `none ${where}`
  // Hundreds of thousands of percent say nothing.
  if (now / before >= TIMES_FROM) return `${number(Math.round(now / before))} times ${write(before)}`
  const part = (now - before) / before
  return `${part >= 0 ? '+' : '−'}${String(Math.abs(Math.round(part * 1000) / 10))} % against ${write(before)}`
}

/**
 * How a row's figure stands against that of another one: by how much of a hundred, or, of a ratio, beside it.
 *
 * @param before null where there is none to be held against
 * @param where the other one was, as `whereHeld` says it
 */
export function changeOf(
  measure: Measure,
  row: Figures,
  before: Figures | null,
  currency: string,
  where: 'before' | 'there',
): string {
  const write = (value: number) => measureText(measure, value, currency)
  const then = before && measured(measure, before)
  if (MEASURES[measure].form !== 'ratio') return changeInWords(measured(measure, row), then, write, where)
  return then === null ? `no figure ${where}` : `${write(then)} ${where}`
}

/**
 * What stands beside a figure: how it stands against another one, or between what a rate may lie by chance; empty where there is
 * neither. What pieces cost is the same whatever the days.
 */
export function besideFigure(
  measure: Measure,
  total: Omit<AnswerRow, 'keys'>,
  currency: string,
  where: 'before' | 'there' = 'before',
): string {
  if (total.before && measure !== 'cost') return changeOf(measure, total, total.before, currency, where)
  const interval = intervalOf(measure, total)
  return interval ? bounds(interval) : ''
}

/** What a mark on time says; where its route leads now stands apart from that. */
export function markInWords({ kind, at, by, name, detail }: TimeMark, zone: string): string {
  switch (kind) {
    case 'destination':
      return `${moment(at, zone)}: ${by} made “${name}” lead to `
    case 'lanes':
      return `${moment(at, zone)}: ${by} published other lanes of “${name}”`
    case 'release':
      return `${moment(at, zone)}: ${by} released “${name}” for print, ${detail}`
    case 'note':
      return `${day(dayIn(zone, at))}: ${name} (noted by ${by})`
  }
}
