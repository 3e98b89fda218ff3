import { deviation, expectedDays } from './forecast.ts'

/** What is unusual: a piece that is scanned no more, a day or an hour with far more or fewer scans, scans from a country that hardly ever scans, programs. */
export const UNUSUAL_KINDS = ['stopped', 'above', 'below', 'hour', 'country', 'programs'] as const
export type UnusualKind = (typeof UNUSUAL_KINDS)[number]

/** Something unusual, with the figures it rests on. */
export interface Finding {
  readonly kind: UnusualKind
  /** Calendar day in the campaign's zone. */
  readonly day: string
  /** The piece of one that stopped; null for a whole campaign. */
  readonly codeId: number | null
  /** Tells one from another of the same kind and day: an hour, or a country. */
  readonly key: string
  readonly counted: number
  readonly expected: number
}

/** So many spreads from what is expected are unusual: by chance alone less often than once in forty years of days. */
export const ALARM_SPREADS = 4
/** Hours are many: they must lie further out. */
const HOUR_SPREADS = 5
/** No alarm rests on fewer scans. */
export const COUNT_LEAST = 20
/** A piece is missed when so many scans would have been expected since its last. */
export const MISSED_SCANS = 12
/** A country is unexpected when it had less than so much of earlier scans, and has more than so much of the latest. */
const COUNTRY_BEFORE = 0.005
const COUNTRY_NOW = 0.1
const PROGRAMS_LEAST = 50

export interface CampaignDays {
  /** The day that goes on, and the one before it, in the campaign's zone. */
  readonly today: string
  readonly yesterday: string
  /** Scans a day, the oldest first, the last one today's so far. */
  readonly days: readonly number[]
  /** Scans by hour of the day over the same days, from 0 to 23. */
  readonly byHour: readonly number[]
  /** Scans of the last whole hour, and which hour of the day that is; null just after midnight. */
  readonly lastHour: { readonly hour: number; readonly scans: number } | null
}

/** Days and hours with far more or fewer scans than weekday, hour and season make expected. */
export function unusualDays({ today, yesterday, days, byHour, lastHour }: CampaignDays): Finding[] {
  const before = days.slice(0, -1)
  const forecasts = expectedDays(before)
  const [ofYesterday, ofToday] = forecasts.slice(-2)
  const found: Finding[] = []
  const note = (kind: UnusualKind, day: string, key: string, counted: number, expected: number) => {
    if (Math.max(counted, expected) >= COUNT_LEAST)
      found.push({ kind, day, codeId: null, key, counted, expected })
  }
  const last = before.at(-1) ?? 0
  if (ofYesterday) {
    const by = deviation(last, ofYesterday)
    if (by > ALARM_SPREADS) note('above', yesterday, '', last, ofYesterday.expected)
    if (by < -ALARM_SPREADS) note('below', yesterday, '', last, ofYesterday.expected)
  }
  if (!ofToday) return found
  // A day that goes on is above when it already has more than a whole day should.
  const soFar = days.at(-1) ?? 0
  const isAbove = deviation(soFar, ofToday) > ALARM_SPREADS
  if (isAbove) note('above', today, '', soFar, ofToday.expected)
  const all = byHour.reduce((sum, scans) => sum + scans, 0)
  if (lastHour && all > 0) {
    // Of an hour that hardly anybody scans in little is known: it counts as one scan in all.
    const share = Math.max(1, byHour[lastHour.hour] ?? 0) / all
    const expected = ofToday.expected * share
    const isFar = deviation(lastHour.scans, { expected, spread: ofToday.spread }) > HOUR_SPREADS
    if (isFar && !isAbove)
      note('hour', today, String(lastHour.hour).padStart(2, '0'), lastHour.scans, expected)
  }
  return found
}

export interface PieceDays {
  readonly codeId: number
  /** Scans a day, the oldest first, the last one today's so far. */
  readonly days: readonly number[]
  readonly isLive: boolean
}

/**
 * Pieces that are scanned no more, though more than a few scans would have been expected since their last: each day as
 * it was expected when the piece was last seen.
 *
 * @param dates of the days
 */
export function stoppedPieces(pieces: readonly PieceDays[], dates: readonly string[]): Finding[] {
  return pieces.flatMap(({ codeId, days, isLive }): Finding[] => {
    const lastScanned = days.findLastIndex((scans) => scans > 0)
    // Of the day that goes on nothing is missed yet.
    const silent = days.length - 2 - lastScanned
    if (!isLive || lastScanned < 0 || silent < 1) return []
    // The day of the last scan may have been the last only in part.
    const forecast = expectedDays(days.slice(0, lastScanned)).at(-1)
    const expected = (forecast?.expected ?? 0) * silent
    if (expected < MISSED_SCANS) return []
    return [{ kind: 'stopped', day: dates[lastScanned] ?? '', codeId, key: '', counted: silent, expected }]
  })
}

export interface CountryCounts {
  readonly country: string
  readonly latest: number
  readonly earlier: number
}

/** Countries that hardly ever scanned, and of which many scans came since yesterday. */
export function unexpectedCountries(counts: readonly CountryCounts[], day: string): Finding[] {
  const latest = counts.reduce((sum, each) => sum + each.latest, 0)
  const earlier = counts.reduce((sum, each) => sum + each.earlier, 0)
  // Of a campaign that has just begun nothing is unexpected.
  if (earlier < 10 * COUNT_LEAST) return []
  return counts
    .filter(
      ({ country, latest: now, earlier: before }) =>
        country !== '' &&
        now >= COUNT_LEAST &&
        now >= COUNTRY_NOW * latest &&
        before < COUNTRY_BEFORE * earlier,
    )
    .map(({ country, latest: counted, earlier: expected }) => ({
      kind: 'country',
      day,
      codeId: null,
      key: country,
      counted,
      expected,
    }))
}

/** A day with far more requests of crawlers than the days before it had. @param requests a day, the oldest first */
export function programWave(requests: readonly number[], day: string): Finding[] {
  const before = [...requests.slice(0, -1)].sort((a, b) => a - b)
  const counted = requests.at(-1) ?? 0
  const expected = before[Math.floor(before.length / 2)] ?? 0
  const isWave = counted >= PROGRAMS_LEAST && deviation(counted, { expected, spread: 1 }) > 2 * ALARM_SPREADS
  return isWave ? [{ kind: 'programs', day, codeId: null, key: '', counted, expected }] : []
}
