import { addDimension, type DimensionValue, type Tallied } from '@flimbo/core/figures'
import type { ResultsSummary } from '@flimbo/core/results'
import type { Apart } from '@flimbo/core/scans'
import type { Span } from '@flimbo/core/time'
import type { Part } from '../figures/index.ts'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import type { CodesOwner } from './countSums.ts'

/** Requests of a span that are in no other figure, by why; the most frequent first. */
export function apartRequests(
  parts: Iterable<Part<ScanDimension>>,
  owners: readonly CodesOwner[],
  span: Span,
): ResultsSummary['apart'] {
  const ways: Tallied<DimensionValue> = new Map()
  for (const part of parts)
    for (const owner of owners) {
      const sums = part.sums(owner, span)
      if (sums) addDimension(ways, part.values.way, sums.dimensions.way)
    }
  const kinds = new Map<Apart, number>()
  for (const [way, { count }] of ways) {
    const { apart } = readWay(String(way))
    if (apart !== null) kinds.set(apart, (kinds.get(apart) ?? 0) + count)
  }
  return [...kinds].map(([kind, requests]) => ({ kind, requests })).sort((a, b) => b.requests - a.requests)
}
