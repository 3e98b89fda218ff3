import { COUNTED, runsOf, type Columns } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import type { ScanDimension } from '../scans/queries.ts'
import { overlap, type FactStore, type Owner, type Part } from '../figures/index.ts'
import type { FactFilter } from './factFilters.ts'

/** Facts that took ways: scans, and what happened on pages. */
export type WayStore = FactStore<'way'>

/** Facts that took certain ways. */
export interface WaysWanted {
  /** The group they are of, whatever code they came by: a route, or a page. Null for those of the owner. */
  readonly group: number | null
  /** Whether a way is wanted, as it stands in the dimension. */
  readonly isWanted: (way: string) => boolean
}

/** Facts that are sought among codes, in a span; or those of a group, such as the route that decided. */
export interface Sought {
  readonly owner: Owner
  readonly span: Span
  readonly counted: 'counted' | 'apart' | 'both'
  /** Only those that took certain ways; all that `counted` says is not asked then. */
  readonly ways?: WaysWanted | undefined
  /** Only those that all of these take: of scans. */
  readonly filters?: readonly FactFilter[] | undefined
}

/** Calls for each fact that is sought: with its moment and its number. There are none where only sums are left. */
function eachSought(part: Part<'way'>, sought: Sought, take: (at: number, id: number) => void): void {
  const { span, ways } = sought
  if (!part.columns) return
  if (overlap(part.span, span) === 'none') return
  const codes = ways && ways.group !== null ? part.codesOfGroup(ways.group) : sought.owner.codes
  if (codes !== 'all' && codes.size === 0) return
  const columns = part.columns()
  const isWanted = ways ? wayTest(columns, ways) : flagTest(columns, sought.counted)
  // Filters are of scans alone: a part that has them has all their columns.
  const filters =
    sought.filters?.map((filter) =>
      filter.testIn(part as Part<ScanDimension>, columns as Columns<ScanDimension>),
    ) ?? []
  for (const { code, from, to } of runsOf(columns, codes, span)) {
    const tests = filters.map((testOf) => testOf(code))
    for (let i = from; i < to; i++)
      if (isWanted(i) && tests.every((test) => test(i)))
        take(columns.at[i] ?? 0, columns.firstId + (columns.id[i] ?? 0))
  }
}

function flagTest({ flags }: Columns, counted: Sought['counted']): (i: number) => boolean {
  if (counted === 'both') return () => true
  const wanted = counted === 'counted' ? COUNTED : 0
  return (i) => ((flags[i] ?? 0) & COUNTED) === wanted
}

function wayTest(columns: Columns<'way'>, ways: WaysWanted): (i: number) => boolean {
  const wanted = wantedWays(columns, ways.isWanted)
  const { index } = columns.dimensions.way
  return (i) => wanted[index[i] ?? 0] === 1
}

/** 1 for each way in some columns that is wanted. */
export const wantedWays = (
  { dimensions: { way } }: Columns<'way'>,
  isWanted: WaysWanted['isWanted'],
): Uint8Array => Uint8Array.from(way.values, (value) => (isWanted(String(value)) ? 1 : 0))

interface Found {
  readonly at: number
  readonly id: number
}
const byMoment = (a: Found, b: Found) => a.at - b.at || a.id - b.id

/** The numbers of all facts that are sought, the oldest first. */
export function allInOrder(facts: WayStore, sought: Sought): Float64Array {
  const found: Found[] = []
  for (const part of facts.parts())
    eachSought(part, sought, (at, id) => {
      found.push({ at, id })
    })
  return Float64Array.from(found.sort(byMoment), ({ id }) => id)
}

/** The numbers of the latest facts that are sought, the newest first. */
export function latestOf(facts: WayStore, sought: Sought, limit: number): number[] {
  let found: Found[] = []
  for (const part of [...facts.parts()].sort((a, b) => b.span.end - a.span.end)) {
    // What stands in this part and those after it is older than all that were found.
    if (found.length === limit && part.span.end <= (found.at(-1)?.at ?? 0)) break
    eachSought(part, sought, (at, id) => {
      found.push({ at, id })
    })
    found = found.sort((a, b) => byMoment(b, a)).slice(0, limit)
  }
  return found.map(({ id }) => id)
}

/** What is counted before a page is found. */
const STEP_MS = 3_600_000

/**
 * The numbers of the facts on a page of all that are sought, in the order of their moments: how many there are in each
 * hour says in which hours the page lies, and only those hours' facts are put in order.
 */
export function pageInOrder(
  facts: WayStore,
  sought: Sought,
  order: 'asc' | 'desc',
  limit: number,
  offset: number,
): { ids: number[]; total: number } {
  const parts = [...facts.parts()]
  const hours = new Map<number, number>()
  for (const part of parts) countHours(part, sought, hours)
  let total = 0
  for (const count of hours.values()) total += count
  const sorted = [...hours].sort(([a], [b]) => (order === 'asc' ? a - b : b - a))

  let [before, skipped] = [0, 0]
  const wanted: number[] = []
  for (const [hour, count] of sorted) {
    if (before + count <= offset) skipped = before + count
    else if (before < offset + limit) wanted.push(hour)
    before += count
  }
  if (wanted.length === 0) return { ids: [], total }
  const span = {
    start: Math.max(sought.span.start, Math.min(...wanted) * STEP_MS),
    end: Math.min(sought.span.end, (Math.max(...wanted) + 1) * STEP_MS),
  }
  const found: Found[] = []
  for (const part of parts)
    eachSought(part, { ...sought, span }, (at, id) => {
      found.push({ at, id })
    })
  found.sort(byMoment)
  if (order === 'desc') found.reverse()
  return { ids: found.slice(offset - skipped, offset - skipped + limit).map(({ id }) => id), total }
}

function countHours(part: Part<'way'>, sought: Sought, hours: Map<number, number>): void {
  if (!part.columns) return
  const isWhole = !sought.ways && !sought.filters?.length && overlap(part.span, sought.span) === 'whole'
  const quarters = isWhole ? part.quarters(sought.owner, sought.span) : null
  if (quarters) {
    const [counted, apart] = [sought.counted !== 'apart', sought.counted !== 'counted']
    for (let q = 0; q < quarters.quarter.length; q++) {
      const hour = Math.floor((quarters.quarter[q] ?? 0) / 4)
      const count = (counted ? (quarters.count[q] ?? 0) : 0) + (apart ? (quarters.apart[q] ?? 0) : 0)
      if (count > 0) hours.set(hour, (hours.get(hour) ?? 0) + count)
    }
    return
  }
  let [last, count] = [NaN, 0]
  eachSought(part, sought, (at) => {
    const hour = Math.floor(at / STEP_MS)
    if (hour === last) {
      count++
      return
    }
    if (count > 0) hours.set(last, (hours.get(last) ?? 0) + count)
    last = hour
    count = 1
  })
  if (count > 0) hours.set(last, (hours.get(last) ?? 0) + count)
}

/** How many facts there are in each step of a span, the steps being equally long. */
export function countSteps(
  facts: WayStore,
  owner: Owner,
  start: number,
  stepMs: number,
  steps: number,
): number[] {
  const counts = Array.from({ length: steps }, () => 0)
  const span = { start, end: start + steps * stepMs }
  for (const part of facts.parts())
    eachSought(part, { owner, span, counted: 'counted' }, (at) => {
      const step = Math.floor((at - start) / stepMs)
      counts[step] = (counts[step] ?? 0) + 1
    })
  return counts
}
