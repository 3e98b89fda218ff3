import { momentOf } from '../time/index.ts'
import type { Taken } from './decide.ts'
import type { Life } from './rules.ts'

/** Something about a route's bounds that needs somebody: it has happened, or it comes soon. */
export interface BoundNotice {
  readonly kind: 'full' | 'full-today' | 'over' | 'ends-soon' | 'full-soon'
  readonly urgent: boolean
  /** When it comes or came about (UTC ms); null for what is so now. */
  readonly at: number | null
  /** When it may come at the earliest and latest, where that is forecast. */
  readonly between: readonly [earliest: number, latest: number | null] | null
}

const DAY_MS = 86_400_000
/** So many days before an end, and before a limit is likely reached, somebody should know. Common practice, no published source. */
export const SOON_DAYS = 7
/** What is over for longer than this is no news. */
const NEWS_DAYS = 30

interface Bounded {
  readonly life: Life
  readonly taken: Taken
  readonly forecast: {
    readonly expected: number
    readonly earliest: number
    readonly latest: number | null
  } | null
  /** UTC milliseconds. */
  readonly now: number
}

/** What there is to be said of a route's dates and limits; the most urgent first. */
export function boundNotices({ life, taken, forecast, now }: Bounded): BoundNotice[] {
  const ends = life.endsAt === '' ? null : momentOf(life.zone, life.endsAt)
  if (ends !== null && now >= ends)
    return now - ends > NEWS_DAYS * DAY_MS ? [] : [{ kind: 'over', urgent: false, at: ends, between: null }]
  if (life.limit !== null && taken.total >= life.limit)
    return [{ kind: 'full', urgent: true, at: null, between: null }]
  const notices: BoundNotice[] = []
  if (life.daily !== null && taken.today >= life.daily)
    notices.push({ kind: 'full-today', urgent: true, at: null, between: null })
  if (ends !== null && ends - now <= SOON_DAYS * DAY_MS)
    notices.push({ kind: 'ends-soon', urgent: false, at: ends, between: null })
  if (forecast && forecast.earliest - now <= SOON_DAYS * DAY_MS)
    notices.push({
      kind: 'full-soon',
      urgent: false,
      at: forecast.expected,
      between: [forecast.earliest, forecast.latest],
    })
  return notices
}
