import { LRUCache } from 'lru-cache'
import {
  countOf,
  fingerprintOf,
  foldedSums,
  foldedTotals,
  placesAmong,
  runsOf,
  sumsOf,
  type CodeSet,
  type Columns,
  type DimensionValue,
  type Folded,
  type QuarterSums,
  type Sums,
} from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import type { Fact } from './fact.ts'
import type { FoldBlock, FoldHead } from './folds.ts'
import { groupsOf, type Groups } from './groups.ts'
import type { CodeTotals, Head, Segment } from './segment.ts'
import { EVER, type Sheet } from './sheets.ts'

/** Some of the facts there are: a segment, those that came after all segments, or sums of what is folded. */
export interface Part<D extends string = string> {
  readonly span: Span
  readonly totals: CodeTotals
  readonly values: Readonly<Record<D, readonly DimensionValue[]>>
  /** The facts one by one; null where only their sums are left. */
  readonly columns: (() => Columns<D>) | null
  /** Codes that a group, such as the route that decided, has facts of. */
  codesOfGroup(group: number): ReadonlySet<number>
  /** The sums of some codes in a span; null where none of it lies there. */
  sums(owner: Owner, span: Span): Sums<D> | null
  /** Of those sums the quarters of an hour alone, which may reach beyond the span. */
  quarters(owner: Owner, span: Span): QuarterSums | null
  /** What each of some codes comes to in a span, of which some lies here. */
  eachTotalIn(codes: CodeSet, span: Span, take: TakeTotal): void
}

/** Whose facts are meant: some codes, and what keeps a sheet of them; no key where nothing does. */
export interface Owner {
  readonly codes: CodeSet
  readonly key: string | null
}

export const ownerKey = (kind: 'campaign' | 'route' | 'code', id: number) => `${kind} ${String(id)}`

/** Whether all of a part lies in a span, some of it, or nothing. */
export function overlap(part: Span, { start, end }: Span): 'whole' | 'some' | 'none' {
  if (part.end <= start || part.start >= end) return 'none'
  return part.start >= start && part.end <= end ? 'whole' : 'some'
}

/** Sums that were worked out once and may be asked for again. */
export interface Memory<D extends string> {
  get(key: string): Sums<D> | undefined
  set(key: string, sums: Sums<D>): void
}

/** How a part sums up some codes in a span, and what is known of that beforehand. */
interface Summing<D extends string> {
  /** Tells its sums from those of others in the same memory. */
  readonly name: string
  readonly span: Span
  readonly codes: Uint32Array
  readonly sheets: ReadonlyMap<string, Sheet<D>>
  readonly memory: Memory<D>
  readonly sum: (codes: CodeSet, span: Span) => Sums<D>
}

/**
 * The sums of a part: from a sheet, where there is one of the very codes that an owner has now, or else worked out once.
 * What is in a part never changes: neither do its sums.
 */
function sumsOnce<D extends string>({
  name,
  span,
  codes: own,
  sheets,
  memory,
  sum,
}: Summing<D>): Pick<Part<D>, 'sums' | 'quarters'> {
  function within({ codes, key }: Owner, asked: Span): Sums<D> | null {
    const lies = overlap(span, asked)
    if (lies === 'none') return null
    const fingerprint = fingerprintOf({ codes: own }, codes)
    const sheet = key !== null && lies === 'whole' ? sheets.get(key) : undefined
    if (sheet?.fingerprint === fingerprint) return sheet.sums
    const [start, end] = [Math.max(span.start, asked.start), Math.min(span.end, asked.end)]
    const id = `${name} ${fingerprint} ${String(start)} ${String(end)}`
    const known = memory.get(id) ?? sum(codes, asked)
    memory.set(id, known)
    return known
  }
  return {
    sums: within,
    quarters: (owner, asked) =>
      overlap(span, asked) === 'none' ? null : (within(owner, EVER)?.quarters ?? null),
  }
}

/** A segment as it is asked; its columns are read when they are needed. */
export function segmentPart<D extends string>(
  segment: Segment,
  head: Head<D>,
  fact: Fact<D>,
  columns: () => Columns<D>,
  memory: Memory<D>,
): Part<D> {
  return {
    span: segment,
    totals: head.totals,
    values: head.values,
    columns,
    codesOfGroup: (group) => head.groups.codesOf(group),
    ...sumsOnce({
      name: segment.name,
      span: segment,
      codes: head.totals.codes,
      sheets: head.sheets,
      memory,
      sum: (codes, span) => sumsOf(columns(), codes, span, fact.everyFact),
    }),
    eachTotalIn: (codes, span, take) => {
      countRuns(columns(), codes, span, take)
    },
  }
}

function countRuns(columns: Columns, codes: CodeSet, span: Span, take: TakeTotal): void {
  for (const run of runsOf(columns, codes, span)) {
    const { count, uniques, lastAt } = countOf(columns, [run])
    take(run.code, count, uniques, lastAt)
  }
}

/** Facts that are folded: their sums, which are read when they are needed. */
export function foldedPart<D extends string>(
  block: FoldBlock,
  head: FoldHead<D>,
  folded: Folded<D>,
  memory: Memory<D>,
): Part<D> {
  return {
    span: block,
    totals: head.totals,
    values: head.values,
    columns: null,
    codesOfGroup: (group) => head.groups.codesOf(group),
    ...sumsOnce({
      name: `fold ${String(block.id)}`,
      span: block,
      codes: head.totals.codes,
      sheets: head.sheets,
      memory,
      sum: (codes, span) => foldedSums(folded, codes, span),
    }),
    eachTotalIn: (codes, span, take) => {
      for (const { code, count, uniques, lastAt } of foldedTotals(folded, codes, span))
        take(code, count, uniques, lastAt)
    },
  }
}

/** Sums of facts that are in no segment, by as many owners and spans. */
const LOOSE_SUMS = 200
const NO_SHEETS: ReadonlyMap<string, never> = new Map<string, never>()

/** Facts that are in no segment. */
export interface LoosePart<D extends string> extends Part<D> {
  readonly columns: () => Columns<D>
}

export function loosePart<D extends string>(
  columns: Columns<D>,
  totals: CodeTotals,
  span: Span,
  fact: Fact<D>,
): LoosePart<D> {
  let groups: Groups | null = null
  return {
    span,
    totals,
    // Its own names.
    values: Object.fromEntries(
      fact.dimensions.map((each) => [each, columns.dimensions[each].values]),
    ) as unknown as Part<D>['values'],
    columns: () => columns,
    codesOfGroup(group) {
      groups ??= groupsOf(columns, fact)
      return groups.codesOf(group)
    },
    ...sumsOnce({
      name: '',
      span,
      codes: columns.codes,
      sheets: NO_SHEETS,
      // Facts that come stand in another part: what was worked out of these holds as long as they are one.
      memory: new LRUCache<string, Sums<D>>({ max: LOOSE_SUMS }),
      sum: (codes, asked) => sumsOf(columns, codes, asked, fact.everyFact),
    }),
    eachTotalIn: (codes, asked, take) => {
      countRuns(columns, codes, asked, take)
    },
  }
}

/** Takes what a code comes to; `lastAt` is -1 where nothing is counted. */
export type TakeTotal = (code: number, count: number, uniques: number, lastAt: number) => void

/** Calls for each of some codes with what it comes to in a span. */
export function eachTotal(part: Part, codes: CodeSet, span: Span, take: TakeTotal): void {
  const lies = overlap(part.span, span)
  if (lies === 'none') return
  if (lies === 'whole') {
    const { totals } = part
    const places = placesAmong(totals.codes, codes)
    for (let k = 0; k < places.length; k++) {
      const c = places[k] ?? 0
      take(totals.codes[c] ?? 0, totals.count[c] ?? 0, totals.uniques[c] ?? 0, totals.lastAt[c] ?? -1)
    }
    return
  }
  part.eachTotalIn(codes, span, take)
}
