import { QUARTER_MS, type Span } from '../time/index.ts'

/** Scans in one quarter of an hour of UTC, numbered from 1970. */
export interface QuarterCount {
  readonly quarter: number
  readonly scans: number
  readonly uniques: number
}

export interface BucketCount extends Span {
  readonly scans: number
  readonly uniques: number
}

/** Sums quarter-hour counts, in ascending order, into buckets, in ascending order and without gaps. */
export function countInto(spans: readonly Span[], quarters: readonly QuarterCount[]): BucketCount[] {
  let next = 0
  return spans.map((span) => {
    let [scans, uniques] = [0, 0]
    for (let q = quarters[next]; q && q.quarter * QUARTER_MS < span.end; q = quarters[++next]) {
      if (q.quarter * QUARTER_MS < span.start) continue
      scans += q.scans
      uniques += q.uniques
    }
    return { ...span, scans, uniques }
  })
}
