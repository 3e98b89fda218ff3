import { QUARTER_MS, type Span } from '../time/index.ts'
import { COUNTED, UNIQUE, type Columns, type DimensionValue } from './columns.ts'
import { runsOf, type CodeSet, type Run } from './select.ts'

/** Facts a quarter of an hour (whole ones since 1970), ascending; quarters without any are left out. */
export interface QuarterSums {
  readonly quarter: Uint32Array
  /** Those that are counted. */
  readonly count: Uint32Array
  readonly uniques: Uint32Array
  /** Those that are kept apart. */
  readonly apart: Uint32Array
}

/** Facts by the values of a dimension: those that have any, by their place among its values. */
export interface DimensionSums {
  readonly value: Uint32Array
  readonly count: Uint32Array
  readonly uniques: Uint32Array
}

/** What some facts come to. */
export interface Sums<D extends string = string> {
  readonly count: number
  readonly uniques: number
  /** The moment of the last one that is counted; -1 where there is none. */
  readonly lastAt: number
  readonly quarters: QuarterSums
  /** Counted facts; of a dimension of `everyFact`, those kept apart as well. */
  readonly dimensions: Readonly<Record<D, DimensionSums>>
}

/**
 * Sums up the facts of some codes in a span.
 *
 * @param everyFact dimensions by which facts that are kept apart are summed up too
 */
export function sumsOf<D extends string>(
  columns: Columns<D>,
  codes: CodeSet,
  span: Span,
  everyFact: readonly D[],
): Sums<D> {
  const runs = runsOf(columns, codes, span)
  return {
    ...countOf(columns, runs),
    quarters: quartersOf(columns, runs),
    dimensions: Object.fromEntries(
      Object.keys(columns.dimensions).map((name) => {
        // Its own names.
        const dimension = name as D
        return [dimension, dimensionOf(columns, runs, dimension, everyFact.includes(dimension))]
      }),
    ) as Record<D, DimensionSums>,
  }
}

/** How many facts of some runs are counted, how many of those are unique, and when the last one was. */
export function countOf({ at, flags }: Columns, runs: readonly Run[]) {
  let [count, uniques, lastAt] = [0, 0, -1]
  for (const { from, to } of runs) {
    for (let i = from; i < to; i++) {
      const flag = flags[i] ?? 0
      count += flag & COUNTED
      uniques += flag >> 1
    }
    for (let i = to - 1; i >= from; i--) {
      if (((flags[i] ?? 0) & COUNTED) === 0) continue
      lastAt = Math.max(lastAt, at[i] ?? 0)
      break
    }
  }
  return { count, uniques, lastAt }
}

/** A span of so many quarters is counted in one array; a wider one, as a wrong clock makes it, is not. */
const DENSE_MAX = 1 << 22
/** Facts are counted by a place and their flags together: whether they are counted or unique is not asked fact by fact. */
const FLAG_BITS = 2

/** Facts of some runs, a quarter of an hour each. */
export function quartersOf(columns: Columns, runs: readonly Run[]): QuarterSums {
  let [first, last] = [Infinity, -Infinity]
  for (const { from, to } of runs) {
    first = Math.min(first, Math.floor((columns.at[from] ?? 0) / QUARTER_MS))
    last = Math.max(last, Math.floor((columns.at[to - 1] ?? 0) / QUARTER_MS))
  }
  if (runs.length === 0) return { quarter: NONE, count: NONE, uniques: NONE, apart: NONE }
  return last - first < DENSE_MAX
    ? denseQuarters(columns, runs, first, last - first + 1)
    : sparseQuarters(columns, runs)
}

const NONE = new Uint32Array()

function denseQuarters(
  { at, flags }: Columns,
  runs: readonly Run[],
  first: number,
  size: number,
): QuarterSums {
  const sums = new Uint32Array(size << FLAG_BITS)
  for (const { from, to } of runs)
    for (let i = from; i < to; i++) {
      const place = Math.floor((at[i] ?? 0) / QUARTER_MS) - first
      const slot = (place << FLAG_BITS) | (flags[i] ?? 0)
      sums[slot] = (sums[slot] ?? 0) + 1
    }
  const { value, count, uniques, apart } = thoseWithAny(sums)
  return { quarter: value.map((place) => place + first), count, uniques, apart }
}

function sparseQuarters({ at, flags }: Columns, runs: readonly Run[]): QuarterSums {
  const sums = new Map<number, [number, number, number, number]>()
  for (const { from, to } of runs)
    for (let i = from; i < to; i++) {
      const quarter = Math.floor((at[i] ?? 0) / QUARTER_MS)
      const sum = sums.get(quarter) ?? [0, 0, 0, 0]
      const flag = flags[i] ?? 0
      sum[flag] = (sum[flag] ?? 0) + 1
      sums.set(quarter, sum)
    }
  const all = [...sums].sort(([a], [b]) => a - b)
  const packed = thoseWithAny(Uint32Array.from(all.flatMap(([, sum]) => sum)))
  return { ...packed, quarter: Uint32Array.from(all, ([quarter]) => quarter) }
}

function dimensionOf<D extends string>(
  { flags, dimensions }: Columns<D>,
  runs: readonly Run[],
  name: D,
  isEvery: boolean,
): DimensionSums {
  const { values, index } = dimensions[name]
  const sums = new Uint32Array(values.length << FLAG_BITS)
  for (const { from, to } of runs)
    for (let i = from; i < to; i++) {
      const slot = ((index[i] ?? 0) << FLAG_BITS) | (flags[i] ?? 0)
      sums[slot] = (sums[slot] ?? 0) + 1
    }
  if (!isEvery) for (let slot = 0; slot < sums.length; slot += 2) sums[slot] = 0
  const { value, count, uniques, apart } = thoseWithAny(sums)
  return { value, count: isEvery ? count.map((n, i) => n + (apart[i] ?? 0)) : count, uniques }
}

/** Places of which there is any fact, out of how many there are of each place and each combination of flags. */
function thoseWithAny(sums: Uint32Array) {
  const size = sums.length >> FLAG_BITS
  const at = (place: number, flag: number) => sums[(place << FLAG_BITS) | flag] ?? 0
  const all = (place: number) => at(place, 0) + at(place, 1) + at(place, 2) + at(place, 3)
  let n = 0
  for (let place = 0; place < size; place++) if (all(place) > 0) n++
  const [value, count] = [new Uint32Array(n), new Uint32Array(n)]
  const [uniques, apart] = [new Uint32Array(n), new Uint32Array(n)]
  let to = 0
  for (let place = 0; place < size; place++) {
    if (all(place) === 0) continue
    value[to] = place
    count[to] = at(place, COUNTED) + at(place, COUNTED | UNIQUE)
    uniques[to] = at(place, UNIQUE) + at(place, COUNTED | UNIQUE)
    apart[to++] = at(place, 0) + at(place, UNIQUE)
  }
  return { value, count, uniques, apart }
}

/** Facts and unique ones, by a value. */
export type Tallied<K> = Map<K, { count: number; uniques: number }>

/** Adds sums by the values of a dimension to what was summed up elsewhere, whose values stand at other places. */
export function addDimension(
  into: Tallied<DimensionValue>,
  values: readonly DimensionValue[],
  { value, count, uniques }: DimensionSums,
): void {
  for (let i = 0; i < value.length; i++) {
    const key = values[value[i] ?? 0] ?? ''
    const there = into.get(key)
    if (there) {
      there.count += count[i] ?? 0
      there.uniques += uniques[i] ?? 0
    } else into.set(key, { count: count[i] ?? 0, uniques: uniques[i] ?? 0 })
  }
}
