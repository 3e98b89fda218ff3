import { WEEKDAYS } from '../time/index.ts'
import type { DeviceType } from '../scans/index.ts'
import { asksNothing, type Condition, type Leaf } from './condition.ts'

const REGIONS = new Intl.DisplayNames('en', { type: 'region', fallback: 'code' })
const LANGUAGES = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' })

/** A country's English name from its ISO 3166-1 code. */
export function countryName(code: string): string {
  if (code === '') return ''
  try {
    return REGIONS.of(code) ?? code
  } catch {
    return code
  }
}

/** A language's English name from its BCP 47 tag; what is none, such as one that is half typed, as it is. */
export function languageName(tag: string): string {
  try {
    return LANGUAGES.of(tag) ?? tag
  } catch {
    return tag
  }
}

const DEVICES: Record<DeviceType, string> = {
  phone: 'phones',
  tablet: 'tablets',
  computer: 'computers',
  television: 'televisions',
  watch: 'watches',
  other: 'other devices',
}
const dayName = (day: number | undefined) => WEEKDAYS[(day ?? 1) - 1] ?? ''
const FIELDS = { medium: 'medium', source: 'source', content: 'content', label: 'name' } as const
const NAMED_MAX = 4

/** "a", "a or b", "a, b or c"; a long list is cut with how many more there are. */
export function joinNames(names: readonly string[], joint = 'or'): string {
  const shown =
    names.length > NAMED_MAX
      ? [...names.slice(0, NAMED_MAX - 1), `${String(names.length - NAMED_MAX + 1)} more`]
      : names
  if (shown.length < 2) return shown[0] ?? ''
  return `${shown.slice(0, -1).join(', ')} ${joint} ${shown.at(-1) ?? ''}`
}

const zoneCity = (zone: string) => (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ')

function daysInWords(days: readonly number[]): string {
  const sorted = [...new Set(days)].sort((a, b) => a - b)
  const key = sorted.join('')
  if (key === '1234567') return 'every day'
  if (key === '12345') return 'on weekdays'
  if (key === '67') return 'at weekends'
  const runs = sorted.length > 2 && sorted.every((day, i) => i === 0 || day === (sorted[i - 1] ?? 0) + 1)
  if (runs) return `from ${dayName(sorted[0])} to ${dayName(sorted.at(-1))}`
  return `on ${sorted
    .map((day) => `${dayName(day)}s`)
    .join(', ')
    .replace(/, ([^,]*)$/, ' and $1')}`
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** `2026-07-01T08:00` as "1 Jul 2026, 08:00". */
export function momentInWords(local: string): string {
  const [day = '', time = ''] = local.split('T')
  const [year, month, date] = day.split('-').map(Number)
  return `${String(date)} ${MONTHS[(month ?? 1) - 1] ?? ''} ${String(year)}, ${time}`
}

function versionsInWords(from: string, upTo: string): string {
  if (from === '') return upTo === '' ? '' : ` ${upTo} or older`
  if (upTo === '') return ` ${from} or newer`
  return from === upTo ? ` ${from}` : ` ${from} to ${upTo}`
}

function leafInWords(leaf: Leaf): string {
  switch (leaf.kind) {
    case 'country':
      return `in ${joinNames(leaf.in.map(countryName))}`
    case 'region':
      return `in ${joinNames(leaf.in.map(({ region, country }) => `${region} (${country})`))}`
    case 'city':
      return `in ${joinNames(leaf.in.map(({ city, country }) => `${city} (${country})`))}`
    case 'near':
      return `within ${String(leaf.km)} km of ${leaf.name === '' ? `${leaf.latitude.toFixed(2)}, ${leaf.longitude.toFixed(2)}` : leaf.name}`
    case 'distance':
      return leaf.beyond
        ? `more than ${String(leaf.km)} km from the piece`
        : `within ${String(leaf.km)} km of the piece`
    case 'device':
      return joinNames(
        leaf.in.map((type) => DEVICES[type]),
        'and',
      )
    case 'system':
      return `with ${leaf.is}${versionsInWords(leaf.from, leaf.upTo)}`
    case 'browser':
      return `using ${joinNames(leaf.in)}`
    case 'language':
      return `reading ${joinNames(leaf.in.map(languageName))}`
    case 'window': {
      const ends = [
        leaf.from === '' ? '' : `from ${momentInWords(leaf.from)}`,
        leaf.upTo === '' ? '' : `until ${momentInWords(leaf.upTo)}`,
      ].filter((end) => end !== '')
      return ends.length === 0 ? 'at any time' : `${ends.join(' ')} (${zoneCity(leaf.zone)} time)`
    }
    case 'hours':
      return `${daysInWords(leaf.days)}${leaf.from === leaf.upTo ? '' : ` from ${leaf.from} to ${leaf.upTo}`} (${zoneCity(leaf.zone)} time)`
    case 'visit':
      return leaf.is === 'first' ? 'on the first scan of the day' : 'scanned again on the same day'
    case 'code':
      return `from pieces whose ${FIELDS[leaf.field]} is ${joinNames(leaf.in.map((value) => `“${value}”`))}`
    case 'query':
      return leaf.in.length === 0
        ? `bringing a value “${leaf.name}”`
        : `bringing ${leaf.name} = ${joinNames(leaf.in.map((value) => `“${value}”`))}`
  }
}

/** A condition as a phrase: "in Germany or Austria", "on weekdays from 22:00 to 06:00 (Berlin time)". */
export function conditionInWords(condition: Condition): string {
  if (condition.kind === 'not')
    return condition.of.kind === 'all' || condition.of.kind === 'any'
      ? `not (${conditionInWords(condition.of)})`
      : `not ${conditionInWords(condition.of)}`
  if (asksNothing(condition)) return 'every scan'
  if (condition.kind === 'any' && condition.of.length === 0) return 'no scan'
  if (condition.kind === 'all' || condition.kind === 'any') {
    const inner = condition.of.map((part) =>
      (part.kind === 'all' || part.kind === 'any') && part.of.length > 1 && part.kind !== condition.kind
        ? `(${conditionInWords(part)})`
        : conditionInWords(part),
    )
    return condition.kind === 'all' ? inner.join(', ') : inner.join(', or ')
  }
  return leafInWords(condition)
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** A lane's condition as the beginning of a sentence, devices first: "Phones in Germany or Austria, on weekdays". */
export function whoInWords(condition: Condition): string {
  const parts = condition.kind === 'all' ? condition.of : [condition]
  if (parts.length === 0) return 'Every scan'
  const who = parts.find((part) => part.kind === 'device')
  const rest = parts.filter((part) => part !== who)
  const subject = who ? conditionInWords(who) : 'scans'
  if (rest.length === 0) return capital(subject)
  return capital(
    `${subject} ${conditionInWords(rest.length === 1 && rest[0] ? rest[0] : { kind: 'all', of: rest })}`,
  )
}
