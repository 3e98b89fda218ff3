import { countInto, emptyBuckets, type BucketCount } from '@flimbo/core/results'
import type { Span } from '@flimbo/core/time'
import type { Owner, Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'

/** Counted scans of an owner in buckets that follow each other. */
export function countBuckets(
  parts: readonly Part<ScanDimension>[],
  owner: Owner,
  spans: readonly Span[],
): BucketCount[] {
  const buckets = emptyBuckets(spans)
  const span = { start: spans[0]?.start ?? 0, end: spans.at(-1)?.end ?? 0 }
  for (const part of parts) {
    const quarters = part.quarters(owner, span)
    if (quarters) countInto(buckets, quarters)
  }
  return buckets
}
