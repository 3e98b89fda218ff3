import { median, robustDeviation } from '../results/index.ts'
import type { WatchWhat } from './watch.ts'

/** What is known of the scans of a thing at a moment. Moments are UTC milliseconds. */
export interface Watched {
  readonly now: number
  /** All scans ever. */
  readonly total: number
  /** The last one; null where there is none. */
  readonly lastAt: number | null
  /** Whether scans could be expected: its route is live, and its campaign has begun and not ended. */
  readonly isLive: boolean
  /** Scans in the last 24 hours, and in the stretches of 24 hours before, the latest first. */
  readonly latest: number
  readonly before: readonly number[]
}

/** What is remembered of a watch between two looks. */
export interface WatchMemory {
  /** When it last told something; null where it has not. */
  readonly toldAt: number | null
}

/** What somebody is told; null where there is nothing to tell. */
export type Told = { readonly kind: 'first' | 'count' | 'silent' | 'spike'; readonly usual: number } | null

const DAY_MS = 86_400_000
/** So many deviations above what is usual. */
const DEVIATIONS = 4
/** Fewer scans in a day are never many. */
const SPIKE_LEAST = 20
/** Fewer days to compare with say nothing of what is usual. */
const DAYS_LEAST = 7

/**
 * From how many scans in 24 hours on they are many more than usual: the median of the days before, and four times their
 * spread above it (median absolute deviation, scaled to a standard deviation: Hampel, J. Am. Stat. Assoc. 69 (1974), from
 * memory), at least twice the median and at least 20.
 *
 * @returns null where there are too few days to tell
 */
export function spikeFrom(
  before: readonly number[],
): { readonly from: number; readonly usual: number } | null {
  if (before.length < DAYS_LEAST) return null
  const usual = median(before)
  const spread = robustDeviation(before, usual)
  return { usual, from: Math.max(SPIKE_LEAST, 2 * usual, usual + DEVIATIONS * spread) }
}

/**
 * What a watch tells at a look. First scan and N scans are told once; silence once until something is scanned again; many
 * more than usual once a day at most.
 *
 * @param n scans, or days of silence
 */
export function judgeWatch(
  what: WatchWhat,
  n: number,
  { now, total, lastAt, isLive, latest, before }: Watched,
  { toldAt }: WatchMemory,
): Told {
  if (what === 'first') return toldAt === null && total > 0 ? { kind: 'first', usual: 0 } : null
  if (what === 'count') return toldAt === null && total >= n ? { kind: 'count', usual: 0 } : null
  if (what === 'silent') {
    const isToldOf = toldAt !== null && (lastAt === null || toldAt > lastAt)
    return isLive && !isToldOf && lastAt !== null && now - lastAt >= n * DAY_MS
      ? { kind: 'silent', usual: 0 }
      : null
  }
  if (what !== 'spike' || (toldAt !== null && now - toldAt < DAY_MS)) return null
  const spike = spikeFrom(before)
  return spike && latest > spike.from ? { kind: 'spike', usual: spike.usual } : null
}
