import type { Condition, Leaf, LeafKind } from '@flimbo/core/conditions'

/** The kinds of condition as people choose them, in groups of who, where, what and when. */
export const KINDS: readonly { kind: LeafKind; name: string; fresh: (zone: string) => Leaf }[] = [
  { kind: 'country', name: 'Country', fresh: () => ({ kind: 'country', in: [] }) },
  { kind: 'region', name: 'Region', fresh: () => ({ kind: 'region', in: [] }) },
  { kind: 'city', name: 'City', fresh: () => ({ kind: 'city', in: [] }) },
  {
    kind: 'near',
    name: 'Near a place',
    fresh: () => ({ kind: 'near', name: '', latitude: 0, longitude: 0, km: 25 }),
  },
  {
    kind: 'distance',
    name: 'Distance from the piece',
    fresh: () => ({ kind: 'distance', km: 5, beyond: false }),
  },
  { kind: 'device', name: 'Device', fresh: () => ({ kind: 'device', in: ['phone'] }) },
  {
    kind: 'system',
    name: 'System and version',
    fresh: () => ({ kind: 'system', is: 'iOS', from: '', upTo: '' }),
  },
  { kind: 'browser', name: 'Browser', fresh: () => ({ kind: 'browser', in: [] }) },
  { kind: 'language', name: 'Language', fresh: () => ({ kind: 'language', in: [] }) },
  {
    kind: 'hours',
    name: 'Days and hours',
    fresh: (zone) => ({ kind: 'hours', days: [1, 2, 3, 4, 5], from: '08:00', upTo: '18:00', zone }),
  },
  { kind: 'window', name: 'Dates', fresh: (zone) => ({ kind: 'window', from: '', upTo: '', zone }) },
  { kind: 'visit', name: 'First or repeat scan', fresh: () => ({ kind: 'visit', is: 'first' }) },
  { kind: 'code', name: 'Which piece', fresh: () => ({ kind: 'code', field: 'medium', in: [] }) },
  { kind: 'query', name: 'Value in the address', fresh: () => ({ kind: 'query', name: '', in: [] }) },
]

export type Group = Extract<Condition, { kind: 'all' | 'any' }>

export const isGroup = (condition: Condition): condition is Group =>
  condition.kind === 'all' || condition.kind === 'any'

/** A condition as the editor shows it: always a group. */
export function asGroup(condition: Condition): Group {
  return isGroup(condition) ? condition : { kind: 'all', of: [condition] }
}

/** The systems that phones and computers name; others can be typed. */
export const SYSTEMS = [
  'iOS',
  'Android',
  'iPadOS',
  'HarmonyOS',
  'Windows',
  'macOS',
  'Linux',
  'ChromeOS',
] as const
export const BROWSERS = ['Safari', 'Chrome', 'Firefox', 'Edge', 'Samsung Browser', 'Opera'] as const
export const LANGUAGES = [
  'de',
  'nl',
  'da',
  'en',
  'fr',
  'es',
  'it',
  'pl',
  'pt',
  'sv',
  'nb',
  'fi',
  'cs',
  'hu',
  'tr',
  'uk',
  'ru',
  'ar',
  'zh',
  'ja',
  'ko',
  'de-AT',
  'de-CH',
  'en-GB',
  'en-US',
  'fr-CH',
  'nl-BE',
  'pt-BR',
  'zh-Hans',
  'zh-Hant',
] as const
