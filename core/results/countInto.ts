import { firstSince } from '../figures/index.ts'
import { QUARTER_MS, type Span } from '../time/index.ts'

/** Counted scans a quarter of an hour of UTC, numbered from 1970, ascending. */
export interface QuarterCounts {
  readonly quarter: ArrayLike<number>
  readonly count: ArrayLike<number>
  readonly uniques: ArrayLike<number>
}

export interface BucketCount extends Span {
  scans: number
  uniques: number
}

export const emptyBuckets = (spans: readonly Span[]): BucketCount[] =>
  spans.map((span) => ({ ...span, scans: 0, uniques: 0 }))

/** Adds quarter-hour counts to buckets that stand in ascending order and without gaps; what lies outside is left out. */
export function countInto(buckets: readonly BucketCount[], { quarter, count, uniques }: QuarterCounts): void {
  let next = 0
  // A part of a year's quarters is looked for, not come to.
  const first = Math.floor((buckets[0]?.start ?? 0) / QUARTER_MS)
  for (let q = firstSince(quarter, 0, quarter.length, first); q < quarter.length; q++) {
    const at = (quarter[q] ?? 0) * QUARTER_MS
    while (at >= (buckets[next]?.end ?? Infinity)) next++
    const bucket = buckets[next]
    if (!bucket) return
    if (at < bucket.start) continue
    bucket.scans += count[q] ?? 0
    bucket.uniques += uniques[q] ?? 0
  }
}
