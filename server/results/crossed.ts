import type Sqlite from 'better-sqlite3'
import { COUNTED, runsOf, UNIQUE, type Columns, type Run } from '@flimbo/core/figures'
import { buckets, dayIn, spanOfDays, type Span } from '@flimbo/core/time'
import type { FactStore, Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import { scanTraits, type ScanTrait, type Trait } from './dimensions.ts'
import { scopeOwner, type Within } from './scope.ts'

/** What scans are told apart by: what stands in them, their piece, or when they were made, in a zone. */
export type CrossedBy = ScanTrait | 'piece' | 'day' | 'hour'

/** Counted scans of days of a zone, both included, told apart by one or two things and narrowed by any. */
export type CrossedQuestion = Within & {
  readonly zone: string
  readonly from: string
  readonly to: string
  readonly by: readonly [first: CrossedBy, second?: CrossedBy]
  readonly filters: Readonly<Partial<Record<ScanTrait, readonly string[]>>>
}

/** How many scans there are of each two keys; those there are none of are left out. */
export interface CrossedCell {
  readonly keys: readonly string[]
  readonly scans: number
  readonly uniques: number
}

/** Keys by their places, in the order in which they were met. */
class Keys {
  readonly list: string[] = []
  private readonly places = new Map<string, number>()

  placeOf(key: string): number {
    const there = this.places.get(key)
    if (there !== undefined) return there
    this.places.set(key, this.list.length)
    return this.list.push(key) - 1
  }
}

/** One side of the question: the place of the key of each fact of a run. */
interface Side {
  readonly keys: Keys
  fill(columns: Columns<ScanDimension>, run: Run, into: Uint32Array): void
}

function traitSide({ dimension, keyOf }: Trait): Side {
  const keys = new Keys()
  const known = new WeakMap<object, Uint32Array>()
  /** The place of the key of each value of a part's dimension. */
  const placesIn = ({ values }: Columns<ScanDimension>['dimensions'][ScanDimension]) => {
    const places = known.get(values) ?? Uint32Array.from(values, (value) => keys.placeOf(keyOf(value)))
    known.set(values, places)
    return places
  }
  return {
    keys,
    fill({ dimensions }, { from, to }, into) {
      const places = placesIn(dimensions[dimension])
      const { index } = dimensions[dimension]
      for (let i = from; i < to; i++) into[i - from] = places[index[i] ?? 0] ?? 0
    },
  }
}

function pieceSide(): Side {
  const keys = new Keys()
  return {
    keys,
    fill(_columns, { code, from, to }, into) {
      into.fill(keys.placeOf(String(code)), 0, to - from)
    },
  }
}

/** Spans that follow each other, of which several may bear the same key, as the same hour of each day. */
function timeSide(spans: readonly Span[], keyOf: (span: Span, i: number) => string): Side {
  const keys = new Keys()
  const places = Uint32Array.from(spans, (span, i) => keys.placeOf(keyOf(span, i)))
  const ends = Float64Array.from(spans, ({ end }) => end)
  return {
    keys,
    fill({ at }, { from, to }, into) {
      let bucket = 0
      for (let i = from; i < to; i++) {
        while ((at[i] ?? 0) >= (ends[bucket] ?? Infinity)) bucket++
        into[i - from] = places[bucket] ?? 0
      }
    },
  }
}

/** Says of each fact of a part whether it is to be counted. */
function maskOf(columns: Columns<ScanDimension>, filters: readonly [Trait, ReadonlySet<string>][]) {
  const masks = filters.map(([{ dimension, keyOf }, wanted]) => {
    const { values, index } = columns.dimensions[dimension]
    return { index, isWanted: Uint8Array.from(values, (value) => (wanted.has(keyOf(value)) ? 1 : 0)) }
  })
  return ({ from, to }: Run, into: Uint8Array) => {
    for (let i = from; i < to; i++) into[i - from] = (columns.flags[i] ?? 0) & COUNTED
    for (const { index, isWanted } of masks)
      for (let i = from; i < to; i++) into[i - from] = (into[i - from] ?? 0) & (isWanted[index[i] ?? 0] ?? 0)
  }
}

/** Counts scans by one or two things at a time. */
export function crossed(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const traits = scanTraits(database)

  function sideOf(by: CrossedBy, zone: string, span: Span): Side {
    if (by === 'piece') return pieceSide()
    if (by === 'day') return timeSide(buckets(zone, span, 'day'), ({ start }) => dayIn(zone, start))
    if (by === 'hour') return timeSide(buckets(zone, span, 'hour'), ({ start }) => hourIn(zone, start))
    return traitSide(traits[by])
  }

  return (question: CrossedQuestion): CrossedCell[] => {
    const { zone, from, to, by, filters } = question
    const span = spanOfDays(zone, from, to)
    const owner = scopeOwner(database, question)
    const [first, second] = [sideOf(by[0], zone, span), by[1] && sideOf(by[1], zone, span)]
    const wanted = Object.entries(filters).map(
      // Its own names.
      ([name, keys]) => [traits[name as ScanTrait], new Set(keys)] as [Trait, ReadonlySet<string>],
    )
    const sums = new Map<number, [scans: number, uniques: number]>()
    for (const part of scans.parts()) countPart(part, owner.codes, span, [first, second], wanted, sums)
    return [...sums].map(([pair, [count, uniques]]) => {
      const [a, b] = [Math.floor(pair / SECOND_MAX), pair % SECOND_MAX]
      const keys = [first.keys.list[a] ?? '', ...(second ? [second.keys.list[b] ?? ''] : [])]
      return { keys, scans: count, uniques }
    })
  }
}

/** Places of keys of the second side are below this: two of them stand together in one number. */
const SECOND_MAX = 2 ** 26
/** Pairs of so many keys are counted in one array; of more, in a map. */
const DENSE_MAX = 1 << 22

function countPart(
  part: Part<ScanDimension>,
  codes: ReadonlySet<number> | 'all',
  span: Span,
  [first, second]: readonly [Side, Side | undefined],
  filters: readonly [Trait, ReadonlySet<string>][],
  sums: Map<number, [number, number]>,
): void {
  if (part.span.end <= span.start || part.span.start >= span.end) return
  const columns = part.columns()
  const mask = maskOf(columns, filters)
  const runs = runsOf(columns, codes, span)
  const most = runs.reduce((longest, { from, to }) => Math.max(longest, to - from), 0)
  const [a, b] = [new Uint32Array(most), new Uint32Array(most)]
  const counts = new Uint8Array(most)
  let dense: PairCounts = emptyPairs(0, 0)
  for (const run of runs) {
    mask(run, counts)
    first.fill(columns, run, a)
    second?.fill(columns, run, b)
    const [na, nb] = [first.keys.list.length, second?.keys.list.length ?? 1]
    if (na > dense.na || nb > dense.nb) {
      addPairs(dense, sums)
      dense = emptyPairs(na, nb)
    }
    const { pairs } = dense
    for (let k = 0; k < run.to - run.from; k++) {
      if (counts[k] !== 1) continue
      const isUnique = ((columns.flags[run.from + k] ?? 0) & UNIQUE) >> 1
      if (pairs) {
        const slot = (((a[k] ?? 0) * dense.nb + (b[k] ?? 0)) << 1) | isUnique
        pairs[slot] = (pairs[slot] ?? 0) + 1
      } else addTo(sums, (a[k] ?? 0) * SECOND_MAX + (b[k] ?? 0), 1, isUnique)
    }
  }
  addPairs(dense, sums)
}

/** Counts of pairs side by side: those that are not unique, and those that are. No array where there are too many. */
interface PairCounts {
  readonly na: number
  readonly nb: number
  readonly pairs: Uint32Array | null
}
/** Room for some more keys than there are, so that a new one does not make it begin anew. */
function emptyPairs(na: number, nb: number): PairCounts {
  const [roomA, roomB] = [na + (na >> 1), nb + (nb >> 1)]
  return {
    na: roomA,
    nb: roomB,
    pairs: roomA * roomB <= DENSE_MAX ? new Uint32Array((roomA * roomB) << 1) : null,
  }
}
function addPairs({ na, nb, pairs }: PairCounts, sums: Map<number, [number, number]>): void {
  if (!pairs) return
  for (let a = 0; a < na; a++)
    for (let b = 0; b < nb; b++) {
      const slot = (a * nb + b) << 1
      const [others, uniques] = [pairs[slot] ?? 0, pairs[slot + 1] ?? 0]
      if (others + uniques > 0) addTo(sums, a * SECOND_MAX + b, others + uniques, uniques)
    }
}
function addTo(sums: Map<number, [number, number]>, pair: number, scans: number, uniques: number): void {
  const sum = sums.get(pair)
  if (sum) {
    sum[0] += scans
    sum[1] += uniques
  } else sums.set(pair, [scans, uniques])
}

/** The hour of the day a moment is in, in a zone: 00 to 23. */
function hourIn(zone: string, moment: number): string {
  return hoursOf(zone).format(moment)
}
const formats = new Map<string, Intl.DateTimeFormat>()
function hoursOf(zone: string): Intl.DateTimeFormat {
  const format =
    formats.get(zone) ??
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' })
  formats.set(zone, format)
  return format
}
