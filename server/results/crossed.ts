import type Sqlite from 'better-sqlite3'
import { COUNTED, runsOf, UNIQUE, type Columns, type Run } from '@flimbo/core/figures'
import { buckets, dayIn, QUARTER_MS, spanOfDays, type Span } from '@flimbo/core/time'
import { hoursOf } from './hours.ts'
import { overlap, type FactStore, type Part } from '../figures/index.ts'
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

/** Facts of a part that are looked at together: by their places in its columns. */
interface Chosen {
  readonly columns: Columns<ScanDimension>
  readonly code: number
  readonly facts: Uint32Array
  readonly length: number
}

/** One side of the question: it meets all its keys first, and then tells those of facts. */
interface Side {
  readonly keys: Keys
  meet(part: Part<ScanDimension>): void
  /** Writes the place of the key of each fact. */
  fill(part: Part<ScanDimension>, chosen: Chosen, into: Uint32Array): void
}

function traitSide({ dimension, keyOf }: Trait): Side {
  const keys = new Keys()
  /** The places of the keys of a part's values. */
  const places = new Map<Part<ScanDimension>, Uint32Array>()
  return {
    keys,
    meet(part) {
      places.set(
        part,
        Uint32Array.from(part.values[dimension], (value) => keys.placeOf(keyOf(value))),
      )
    },
    fill(part, { columns, facts, length }, into) {
      const placeOf = places.get(part) ?? new Uint32Array()
      const { index } = columns.dimensions[dimension]
      for (let k = 0; k < length; k++) into[k] = placeOf[index[facts[k] ?? 0] ?? 0] ?? 0
    },
  }
}

function pieceSide(codes: ReadonlySet<number>): Side {
  const keys = new Keys()
  return {
    keys,
    meet({ totals }) {
      for (const code of totals.codes) if (codes.has(code)) keys.placeOf(String(code))
    },
    fill(_part, { code, length }, into) {
      into.fill(keys.placeOf(String(code)), 0, length)
    },
  }
}

function daySide(days: readonly Span[], zone: string): Side {
  const keys = new Keys()
  const places = Uint32Array.from(days, ({ start }) => keys.placeOf(dayIn(zone, start)))
  const ends = Float64Array.from(days, ({ end }) => end)
  return {
    keys,
    meet: () => undefined,
    fill(_part, { columns: { at }, facts, length }, into) {
      // Those of a code stand in the order of time.
      let day = 0
      for (let k = 0; k < length; k++) {
        const moment = at[facts[k] ?? 0] ?? 0
        while (moment >= (ends[day] ?? Infinity)) day++
        into[k] = places[day] ?? 0
      }
    },
  }
}

/** The hour of the day, 00 to 23: every quarter of an hour lies in one, in every zone. */
function hourSide(zone: string): Side {
  const keys = new Keys()
  for (let hour = 0; hour < 24; hour++) keys.placeOf(String(hour).padStart(2, '0'))
  const hours = hoursOf(zone)
  return {
    keys,
    meet: () => undefined,
    fill(_part, { columns: { at }, facts, length }, into) {
      for (let k = 0; k < length; k++) into[k] = hours(Math.floor((at[facts[k] ?? 0] ?? 0) / QUARTER_MS))
    },
  }
}

/** Chooses the facts of a run that are counted and that every filter takes. @returns how many there are */
function choose(
  { flags }: Columns<ScanDimension>,
  { from, to }: Run,
  masks: readonly Mask[],
  facts: Uint32Array,
): number {
  let length = 0
  for (let i = from; i < to; i++) {
    facts[length] = i
    length += (flags[i] ?? 0) & COUNTED
  }
  for (const { index, isWanted } of masks) {
    let left = 0
    for (let k = 0; k < length; k++) {
      const i = facts[k] ?? 0
      facts[left] = i
      left += isWanted[index[i] ?? 0] ?? 0
    }
    length = left
  }
  return length
}

type Filter = readonly [Trait, ReadonlySet<string>]
interface Mask {
  readonly index: Columns['dimensions'][string]['index']
  /** 1 for each value of the dimension that is wanted. */
  readonly isWanted: Uint8Array
}
const maskOf = ({ dimensions }: Columns<ScanDimension>, [{ dimension, keyOf }, wanted]: Filter): Mask => {
  const { values, index } = dimensions[dimension]
  return { index, isWanted: Uint8Array.from(values, (value) => (wanted.has(keyOf(value)) ? 1 : 0)) }
}

/** Counts of pairs of keys, those that are not unique and those that are: in one array, or in a map where there are many. */
class Pairs {
  private readonly dense: Uint32Array | null
  private readonly sparse = new Map<number, number>()

  constructor(
    private readonly as: number,
    private readonly bs: number,
  ) {
    this.dense = as * bs <= DENSE_MAX ? new Uint32Array(2 * as * bs) : null
  }

  add(a: Uint32Array, b: Uint32Array, flags: Uint8Array, { facts, length }: Chosen): void {
    const { dense, sparse, bs } = this
    for (let k = 0; k < length; k++) {
      const slot = 2 * ((a[k] ?? 0) * bs + (b[k] ?? 0)) + (((flags[facts[k] ?? 0] ?? 0) & UNIQUE) >> 1)
      if (dense) dense[slot] = (dense[slot] ?? 0) + 1
      else sparse.set(slot, (sparse.get(slot) ?? 0) + 1)
    }
  }

  cells(keysOf: (a: number, b: number) => string[]): CrossedCell[] {
    const { dense, sparse, bs } = this
    const cells: CrossedCell[] = []
    const take = (pair: number, others: number, uniques: number) => {
      if (others + uniques > 0)
        cells.push({ keys: keysOf(Math.floor(pair / bs), pair % bs), scans: others + uniques, uniques })
    }
    if (dense)
      for (let pair = 0; pair < this.as * bs; pair++)
        take(pair, dense[2 * pair] ?? 0, dense[2 * pair + 1] ?? 0)
    else
      for (const pair of new Set([...sparse.keys()].map((slot) => Math.floor(slot / 2))))
        take(pair, sparse.get(2 * pair) ?? 0, sparse.get(2 * pair + 1) ?? 0)
    return cells
  }
}

/** Pairs of so many keys are counted in one array; of more, in a map. */
const DENSE_MAX = 1 << 22

/** Counts scans by one or two things at a time. */
export function crossed(database: Sqlite.Database, scans: FactStore<ScanDimension>) {
  const traits = scanTraits(database)

  function sideOf(by: CrossedBy, zone: string, span: Span, codes: ReadonlySet<number>): Side {
    if (by === 'piece') return pieceSide(codes)
    if (by === 'day') return daySide(buckets(zone, span, 'day'), zone)
    if (by === 'hour') return hourSide(zone)
    return traitSide(traits[by])
  }

  return (question: CrossedQuestion): CrossedCell[] => {
    const { zone, from, to, by, filters } = question
    const span = spanOfDays(zone, from, to)
    const { codes } = scopeOwner(database, question)
    const sides = by.flatMap((each) => (each ? [sideOf(each, zone, span, codes)] : []))
    const wanted = Object.entries(filters).map(
      // Its own names.
      ([name, keys]): Filter => [traits[name as ScanTrait], new Set(keys)],
    )
    const parts = [...scans.parts()].filter(
      // Of sums nothing is known that two things have in common.
      (part) => part.columns !== null && overlap(part.span, span) !== 'none',
    )
    for (const side of sides) for (const part of parts) side.meet(part)
    const [first, second] = sides
    const pairs = new Pairs(first?.keys.list.length ?? 0, second ? second.keys.list.length : 1)
    for (const part of parts) countPart(part, codes, span, sides, wanted, pairs)
    return pairs.cells((a, b) => [first?.keys.list[a] ?? '', ...(second ? [second.keys.list[b] ?? ''] : [])])
  }
}

function countPart(
  part: Part<ScanDimension>,
  codes: ReadonlySet<number>,
  span: Span,
  [first, second]: readonly Side[],
  filters: readonly Filter[],
  pairs: Pairs,
): void {
  const columns = part.columns?.()
  if (!columns) return
  const masks = filters.map((filter) => maskOf(columns, filter))
  const runs = runsOf(columns, codes, span)
  const most = runs.reduce((longest, { from, to }) => Math.max(longest, to - from), 0)
  const [facts, a, b] = [new Uint32Array(most), new Uint32Array(most), new Uint32Array(most)]
  for (const run of runs) {
    const chosen: Chosen = { columns, code: run.code, facts, length: choose(columns, run, masks, facts) }
    first?.fill(part, chosen, a)
    second?.fill(part, chosen, b)
    pairs.add(a, b, columns.flags, chosen)
  }
}
