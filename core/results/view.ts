import { z } from 'zod'
import {
  dimension,
  DIMENSION_NAMES,
  FILTER_KEYS_MAX,
  filterEntries,
  filters,
  type Dimension,
  type Filters,
} from '../dimensions/index.ts'
import { calendarDay } from '../time/index.ts'
import { MEASURE_NAMES, type Measure } from './measures.ts'
import { DEFAULT_PRESET, periodBetween, PRESET_IDS, presetNamed, type Period } from './period.ts'
import { AGAINST, DAYS_IN_ORDER, isOfOther, type Against } from './question.ts'

/** Days that go with the day on which it is asked, or days that stay. */
export const period = z.union([
  z.strictObject({ preset: z.enum(PRESET_IDS) }),
  z.strictObject({ from: calendarDay, to: calendarDay }).refine(({ from, to }) => from <= to, DAYS_IN_ORDER),
])

/** A question as it is kept: days that go with the day on which it is asked, or days that stay. */
export const questionView = z.strictObject({
  what: z.enum(MEASURE_NAMES),
  by: z.array(dimension).max(2),
  filters,
  period,
  against: z.enum(AGAINST),
  otherCampaignId: z.int().positive().nullable().default(null),
})

/** All that a person has asked: what, by what, of which scans, when, and against what. */
export interface QuestionView {
  readonly what: Measure
  /** Nothing stands for time, in pieces that suit the period. */
  readonly by: readonly Dimension[]
  readonly filters: Filters
  readonly period: Period
  readonly against: Against
  /** The campaign that figures are held against; null where it is none, or not chosen yet. */
  readonly otherCampaignId: number | null
}

/** What an address asks that says nothing. */
export const DEFAULT_VIEW: QuestionView = {
  what: 'scans',
  by: [],
  filters: {},
  period: { preset: DEFAULT_PRESET },
  against: 'none',
  otherCampaignId: null,
}

const FILTER = 'in.'
/** The names in an address that a question is made of; others are not its own. */
const isOfView = (name: string) =>
  ['what', 'by', 'days', 'from', 'to', 'against', 'other'].includes(name) || name.startsWith(FILTER)

const dimensionNamed = (text: string) => DIMENSION_NAMES.find((name) => name === text)

/** The question an address holds; what it says wrongly is as if it were not said. */
export function readView(address: URLSearchParams): QuestionView {
  const text = (name: string) => address.get(name) ?? ''
  const by = text('by')
    .split(',')
    .flatMap((name) => dimensionNamed(name) ?? [])
  const other = Number(text('other'))
  const narrowed: Filters = {}
  for (const name of new Set(address.keys())) {
    const named = name.startsWith(FILTER) ? dimensionNamed(name.slice(FILTER.length)) : undefined
    if (named) narrowed[named] = [...new Set(address.getAll(name))].slice(0, FILTER_KEYS_MAX)
  }
  return {
    what: MEASURE_NAMES.find((name) => name === text('what')) ?? DEFAULT_VIEW.what,
    by: [...new Set(by)].slice(0, 2),
    filters: narrowed,
    period: periodBetween(text('from'), text('to')) ?? { preset: presetNamed(text('days')) },
    against: AGAINST.find((each) => each === text('against')) ?? 'none',
    otherCampaignId: Number.isSafeInteger(other) && other > 0 ? other : null,
  }
}

/** An address with another question: what is not the question's own stays. */
export function writeView(address: URLSearchParams, view: QuestionView): URLSearchParams {
  const written = new URLSearchParams([...address].filter(([name]) => !isOfView(name)))
  const { what, by, period, against } = view
  if (what !== DEFAULT_VIEW.what) written.set('what', what)
  if (by.length > 0) written.set('by', by.join(','))
  if ('from' in period) {
    written.set('from', period.from)
    written.set('to', period.to)
  } else if (period.preset !== DEFAULT_PRESET) written.set('days', period.preset)
  if (against !== 'none') written.set('against', against)
  if (isOfOther(against) && view.otherCampaignId !== null) written.set('other', String(view.otherCampaignId))
  for (const [name, keys] of filterEntries(view.filters))
    for (const key of keys) written.append(`${FILTER}${name}`, key)
  return written
}
