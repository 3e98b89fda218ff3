import { country, language, number } from '../formats/index.ts'
import { isOfKind, type Dimension, type TimeDimension } from '../dimensions/index.ts'
import { type Answer } from '../results/index.ts'
import { WEEKDAYS } from '../time/index.ts'

const weekday = (key: string) => WEEKDAYS[Number(key) - 1]?.slice(0, 3) ?? key

/** A day as it is read; what is none, as somebody may type it into an address, as it stands. */
function formatted(day: string, options: Intl.DateTimeFormatOptions): string {
  const at = Date.parse(`${day}T00:00:00Z`)
  return Number.isNaN(at) ? day : new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options }).format(at)
}

const TIMES: Readonly<Record<TimeDimension, (key: string) => string>> = {
  // Local time stands in the key itself.
  hour: (key) => `${formatted(key.slice(0, 10), { day: 'numeric', month: 'short' })}, ${key.slice(11, 16)}`,
  day: (key) => formatted(key, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }),
  week: (key) => `week ${key.slice(6)} of ${key.slice(0, 4)}`,
  month: (key) => formatted(`${key}-01`, { month: 'short', year: 'numeric' }),
  quarter: (key) => `${key.slice(5)} ${key.slice(0, 4)}`,
  year: (key) => key,
}

const OUTCOMES: Readonly<Record<string, string>> = {
  redirect: 'redirected',
  paused: 'paused',
  deleted: 'deleted',
  early: 'too early',
  over: 'over',
  full: 'full',
  'full-today': 'full for the day',
  message: 'shown a message',
  page: 'shown a page',
  password: 'asked for a password',
  location: 'asked for their place',
}

/** What stands for an empty key. */
const EMPTY: Partial<Record<Dimension, string>> = {
  language: 'Not named',
  channel: 'unassigned',
  referrer: 'None named',
  content: 'None',
  source: 'None',
  medium: 'None',
  place: 'None given',
  lane: 'Stopped before any lane',
  variant: 'No split',
}

/** What a key is called on a screen or in a report. */
export function keyLabel(dimension: Dimension, key: string, names: Answer['names'] = {}): string {
  if (key === '') return EMPTY[dimension] ?? 'Not known'
  if (isOfKind(dimension, 'time')) return TIMES[dimension](key)
  return LABELS[dimension]?.(key) ?? ownName(names[dimension], key) ?? key
}

/** A name by its key; nothing for what every object has. */
const ownName = (names: Readonly<Record<string, string>> | undefined, key: string): string | undefined =>
  names && Object.hasOwn(names, key) ? names[key] : undefined

/** The last part of a key, with the country it lies in. */
function placeLabel(key: string): string {
  const parts = key.split('\t')
  return `${parts.at(-1) ?? ''}, ${country(parts[0] ?? '')}`
}

/** Keys that are written for machines, for people. */
const LABELS: Partial<Record<Dimension, (key: string) => string>> = {
  hourOfDay: (key) => `${key}:00`,
  weekday,
  hourOfWeek: (key) => `${weekday(key.slice(0, 1))} ${key.slice(2)}:00`,
  country,
  language,
  region: placeLabel,
  city: placeLabel,
  distance: distanceLabel,
  outcome: (key) => ownName(OUTCOMES, key) ?? key,
}

function distanceLabel(key: string): string {
  const [from = '', to = ''] = key.split('-')
  if (from === '0') return `under ${to} km`
  return to === '' ? `${number(Number(from))} km and more` : `${from} to ${number(Number(to))} km`
}

/** What keys in their order are called, none like another: an hour that comes twice has its offset beside it. */
export function keyLabels(
  dimension: Dimension,
  keys: readonly string[],
  names: Answer['names'] = {},
): string[] {
  const labels = keys.map((key) => keyLabel(dimension, key, names))
  if (dimension !== 'hour') return labels
  return labels.map((label, i) =>
    label === labels[i - 1] || label === labels[i + 1] ? `${label} (${keys[i]?.slice(16) ?? ''})` : label,
  )
}

/** What the keys of rows are called, dimension by dimension. */
export const rowLabels = (
  by: readonly Dimension[],
  { rows, names }: Pick<Answer, 'rows' | 'names'>,
): string[][] =>
  by.map((dimension, side) =>
    keyLabels(
      dimension,
      rows.map(({ keys }) => keys[side] ?? ''),
      names,
    ),
  )
