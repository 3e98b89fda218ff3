import {
  filterEntries,
  isOfKind,
  type Dimension,
  type Filters,
  type PieceDimension,
} from '@flimbo/core/dimensions'
import { type Question } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import type { Span } from '@flimbo/core/time'
import { eachTotal, ownerKey, type Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { pieceKeys, type FigureCode } from './codeRows.ts'
import { countFacts, type FactCount } from './countFacts.ts'
import {
  countSums,
  countTotals,
  groupsOf,
  GROUPS_MAX,
  summedSides,
  sumsIn,
  type CodesOwner,
} from './countSums.ts'
import { factFilter, type FactFilter } from './factFilters.ts'
import { Pairs } from './pairs.ts'
import { scopeKey, type Within } from './scope.ts'
import type { Side } from './sides.ts'
import type { SideName, Sides } from './sideMaker.ts'

/** A question before it is counted: of which codes, by which sides, and of which facts of theirs. */
export interface QuestionCount {
  readonly codes: readonly FigureCode[]
  readonly owners: readonly CodesOwner[]
  readonly a: Side
  readonly b: Side
  readonly filters: readonly FactFilter[]
}

/** What was counted of it. */
export interface Counted {
  readonly pairs: Pairs
  /** Scans that are folded have no part in it. */
  readonly leavesOutFolded: boolean
}

interface Given {
  readonly codes: readonly FigureCode[]
  readonly within: Within
  readonly sides: Sides
  readonly channels: readonly ChannelRule[]
}

/** Makes ready to count: equal filters and equal sets of codes are one, so that they are looked through once. */
export function questionCounts({ codes, within, sides, channels }: Given) {
  const keysOf = pieceKeys(channels)
  const filtersOf = new Map<string, FactFilter>()
  const chosen = new Map<string, Pick<QuestionCount, 'codes' | 'owners'>>()

  function chooseCodes(filters: Filters): Pick<QuestionCount, 'codes' | 'owners'> {
    const wanted = filterEntries(filters).filter((entry): entry is [PieceDimension, string[]] =>
      isOfKind(entry[0], 'piece'),
    )
    const name = JSON.stringify(wanted)
    const there = chosen.get(name)
    if (there) return there
    const sets = wanted.map(([dimension, keys]) => [keysOf[dimension], new Set(keys)] as const)
    const own = codes.filter((code) => sets.every(([keyOf, keys]) => keys.has(keyOf(code))))
    const made = { codes: own, owners: codesOwners(own, wanted.length === 0 ? within : null) }
    chosen.set(name, made)
    return made
  }
  function filterOf(dimension: Dimension, keys: readonly string[]): FactFilter {
    const name = JSON.stringify([dimension, keys])
    const made = filtersOf.get(name) ?? factFilter(sides.of(dimension), keys)
    filtersOf.set(name, made)
    return made
  }

  return (by: readonly SideName[], filters: Question['filters']): QuestionCount => ({
    ...chooseCodes(filters),
    a: sides.of(by[0]),
    b: sides.of(by[1]),
    filters: filterEntries(filters)
      .filter(([dimension]) => !isOfKind(dimension, 'piece'))
      .map(([dimension, keys]) => filterOf(dimension, keys)),
  })
}

/**
 * Codes by what sums are kept of: those of a whole scope as one, any others campaign by campaign.
 *
 * @param within the scope that these are all codes of, where they are
 */
export function codesOwners(codes: readonly FigureCode[], within: Within | null): CodesOwner[] {
  const key = within && scopeKey(within)
  if (key) return [{ codes: new Set(codes.map(({ id }) => id)), key }]
  const campaigns = new Map<number, Set<number>>()
  for (const { id, campaignId } of codes) {
    const own = campaigns.get(campaignId) ?? new Set<number>()
    own.add(id)
    campaigns.set(campaignId, own)
  }
  return [...campaigns].map(([id, own]) => ({ codes: own, key: ownerKey('campaign', id) }))
}

/** Counts questions over all parts: by sums where these know the answer, and fact by fact where they do not. */
export function countQuestions(
  parts: readonly Part<ScanDimension>[],
  span: Span,
  counts: readonly QuestionCount[],
): Map<QuestionCount, Counted> {
  const ways = counts.map((count) => ({ count, ...wayOf(count), leavesOutFolded: false }))
  for (const part of parts) {
    const ofFacts: FactCount[] = []
    const sumsOf = sumsIn(part, span)
    for (const way of ways) {
      const { count, pairs, sums, groups } = way
      const { owners } = count
      if (sums?.a.by === 'code' && sums.b.by === 'code')
        for (const { codes } of owners) countTotals(part, span, codes, sums, pairs)
      else if (sums && (part.columns === null || groups.length <= GROUPS_MAX))
        countSums(part, sumsOf, sums, groups, pairs)
      else if (part.columns) ofFacts.push({ ...count, pairs })
      else way.leavesOutFolded ||= owners.some(({ codes }) => hasAny(part, codes, span))
    }
    countFacts(part, span, ofFacts)
  }
  return new Map(ways.map(({ count, pairs, leavesOutFolded }) => [count, { pairs, leavesOutFolded }]))
}

function wayOf({ a, b, filters, owners }: QuestionCount) {
  const sums = filters.length === 0 ? summedSides(a, b) : null
  return {
    pairs: new Pairs(a.keys.list.length, b.keys.list.length),
    sums,
    groups: sums ? groupsOf(sums, owners) : [],
  }
}

function hasAny(part: Part<ScanDimension>, codes: ReadonlySet<number>, span: Span): boolean {
  let any = false
  eachTotal(part, codes, span, (_code, count) => {
    any ||= count > 0
  })
  return any
}
