import { LRUCache } from 'lru-cache'
import {
  countOf,
  fingerprintOf,
  foldedQuarters,
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

/** The sums of an owner, where there is a sheet of the very codes that it has now. */
function sheetOf<D extends string>(
  sheets: ReadonlyMap<string, Sheet<D>>,
  key: string | null,
  fingerprint: string,
): Sums<D> | null {
  const sheet = key === null ? undefined : sheets.get(key)
  return sheet?.fingerprint === fingerprint ? sheet.sums : null
}

/** A segment as it is asked; its columns are read when they are needed. */
export function segmentPart<D extends string>(
  segment: Segment,
  head: Head<D>,
  fact: Fact<D>,
  columns: () => Columns<D>,
  memory: Memory<D>,
): Part<D> {
  /** The sums of some codes in as much of the segment as lies in a span. */
  function within({ codes, key }: Owner, span: Span): Sums<D> {
    const start = Math.max(span.start, segment.start)
    const end = Math.min(span.end, segment.end)
    const fingerprint = fingerprintOf(head.totals, codes)
    const isWhole = start === segment.start && end === segment.end
    const sheet = isWhole ? sheetOf(head.sheets, key, fingerprint) : null
    if (sheet) return sheet
    // What is packed never changes: neither do its sums.
    const name = `${segment.name} ${fingerprint} ${String(start)} ${String(end)}`
    const known = memory.get(name)
    if (known) return known
    const sums = sumsOf(columns(), codes, span, fact.everyFact)
    memory.set(name, sums)
    return sums
  }
  return {
    span: segment,
    totals: head.totals,
    values: head.values,
    columns,
    codesOfGroup: (group) => head.groups.codesOf(group),
    sums: (owner, span) => (overlap(segment, span) === 'none' ? null : within(owner, span)),
    quarters: (owner, span) => (overlap(segment, span) === 'none' ? null : within(owner, EVER).quarters),
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
  function within({ codes, key }: Owner, span: Span): Sums<D> {
    const [start, end] = [Math.max(span.start, block.start), Math.min(span.end, block.end)]
    const fingerprint = fingerprintOf(head.totals, codes)
    const sheet = overlap(block, span) === 'whole' ? sheetOf(head.sheets, key, fingerprint) : null
    if (sheet) return sheet
    const name = `fold ${String(block.id)} ${fingerprint} ${String(start)} ${String(end)}`
    const known = memory.get(name)
    if (known) return known
    const sums = foldedSums(folded, codes, span)
    memory.set(name, sums)
    return sums
  }
  return {
    span: block,
    totals: head.totals,
    values: head.values,
    columns: null,
    codesOfGroup: (group) => head.groups.codesOf(group),
    sums: (owner, span) => (overlap(block, span) === 'none' ? null : within(owner, span)),
    quarters: ({ codes }, span) =>
      overlap(block, span) === 'none' ? null : foldedQuarters(folded, codes, span),
    eachTotalIn: (codes, span, take) => {
      for (const { code, count, uniques, lastAt } of foldedTotals(folded, codes, span))
        take(code, count, uniques, lastAt)
    },
  }
}

/** Sums of facts that are in no segment, by as many owners and spans. */
const LOOSE_SUMS = 200

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
  // Scans that come stand in another part: what was worked out of these holds as long as they are one.
  const memory = new LRUCache<string, Sums<D>>({ max: LOOSE_SUMS })
  let groups: Groups | null = null
  function within({ codes }: Owner, asked: Span): Sums<D> {
    const [start, end] = [Math.max(span.start, asked.start), Math.min(span.end, asked.end)]
    const name = `${fingerprintOf(columns, codes)} ${String(start)} ${String(end)}`
    const known = memory.get(name) ?? sumsOf(columns, codes, asked, fact.everyFact)
    memory.set(name, known)
    return known
  }
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
    sums: (owner, asked) => (overlap(span, asked) === 'none' ? null : within(owner, asked)),
    quarters: (owner, asked) => (overlap(span, asked) === 'none' ? null : within(owner, EVER).quarters),
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
