import { quantity } from '../formats/index.ts'
import type { WatchEvery, WatchOf, WatchWhat } from './watch.ts'

const EVERY: Readonly<Record<WatchEvery, string>> = {
  once: '',
  hour: 'every hour',
  day: 'every day',
  week: 'every week',
  month: 'every month',
}

/** What a watch tells, as a sentence without its subject: “a summary every week”. */
export function watchInWords(what: WatchWhat, every: WatchEvery, n: number | null): string {
  if (what === 'summary') return `a summary ${EVERY[every]}`
  if (what === 'leads') return 'each new lead'
  if (what === 'first') return 'the first scan'
  if (what === 'count') return quantity(n ?? 0, 'scan')
  if (what === 'unusual') return 'anything unusual'
  return what === 'silent' ? `no scan for ${quantity(n ?? 0, 'day')}` : 'many more scans than usual'
}

export const OF_NAMES: Readonly<Record<WatchOf, string>> = {
  campaign: 'campaign',
  route: 'route',
  code: 'piece',
}
