import { QUARTER_MS, type Span } from '../time/index.ts'
import { COUNTED, indexArray, type Columns, type Dimension, type DimensionValue } from './columns.ts'
import { firstSince, placesAmong, type CodeSet } from './select.ts'
import type { DimensionSums, QuarterSums, Sums } from './sums.ts'

/** An array of whole numbers, of the smallest kind that holds them. */
export type Numbers = Dimension['index']

/**
 * Sums of facts by a dimension: of each code, in each step of time, and of each value how many there are. Those of
 * `codes[i]` stand from `starts[i]` to `starts[i + 1]`, in the order of time.
 */
export interface FoldedTable {
  readonly values: readonly DimensionValue[]
  readonly starts: Uint32Array
  /** The quarter of an hour each step begins with, counted from `firstStep` (whole ones since 1970). */
  readonly firstStep: number
  readonly step: Numbers
  readonly value: Numbers
  readonly count: Numbers
  readonly uniques: Numbers
  /** Facts that are kept apart: only of dimensions by which those are summed up. */
  readonly apart: Numbers
}

/**
 * Facts of which only sums are left. By the first dimension they are summed up by quarters of an hour, by the others in
 * longer steps, such as the days of a zone.
 */
export interface Folded<D extends string = string> {
  readonly length: number
  /** Whole quarters of an hour, UTC milliseconds. */
  readonly span: Span
  readonly codes: Uint32Array
  /** The moment of each code's last fact that is counted; -1 where there is none. */
  readonly lastAt: Float64Array
  /** That with the quarters of an hour. */
  readonly first: D
  readonly tables: Readonly<Record<D, FoldedTable>>
}

/** A step of time, from the quarter of an hour it begins with to before the one it ends with. */
export interface Step {
  readonly from: number
  readonly to: number
}

export interface Folding<D extends string> {
  /** The dimension by which facts are summed up in quarters of an hour, those that are kept apart too. */
  readonly first: D
  /** The step of the other dimensions that a quarter of an hour lies in at a code: a day of its zone. */
  readonly stepOf: (code: number, quarter: number) => Step
}

const quarterOf = (at: number) => Math.floor(at / QUARTER_MS)

/** Sums facts up, so that nothing is left of each. */
export function foldColumns<D extends string>(columns: Columns<D>, { first, stepOf }: Folding<D>): Folded<D> {
  const { codes, starts, at, flags, dimensions } = columns
  const lastAt = new Float64Array(codes.length).fill(-1)
  let [start, end] = [Infinity, -Infinity]
  for (let c = 0; c < codes.length; c++) {
    const [from, to] = [starts[c] ?? 0, starts[c + 1] ?? 0]
    start = Math.min(start, quarterOf(at[from] ?? 0))
    end = Math.max(end, quarterOf(at[to - 1] ?? 0) + 1)
    for (let i = from; i < to; i++) if ((flags[i] ?? 0) & COUNTED) lastAt[c] = at[i] ?? -1
  }
  const quarters = (_code: number, quarter: number) => ({ from: quarter, to: quarter + 1 })
  const tables = Object.fromEntries(
    Object.keys(dimensions).map((name) => [
      name,
      // Its own names.
      foldTable(columns, dimensions[name as D], name === first, name === first ? quarters : stepOf),
    ]),
  ) as Record<D, FoldedTable>
  const span = { start: start * QUARTER_MS, end: end * QUARTER_MS }
  return { length: columns.length, span, codes, lastAt, first, tables }
}

function foldTable(
  { codes, starts: places, at, flags, length }: Columns,
  { values, index }: Dimension,
  isEvery: boolean,
  stepOf: Folding<string>['stepOf'],
): FoldedTable {
  const starts = new Uint32Array(codes.length + 1)
  const [step, value] = [new Float64Array(length), new Uint32Array(length)]
  const [count, uniques, apart] = [new Uint32Array(length), new Uint32Array(length), new Uint32Array(length)]
  /** Of each value how many facts of a step have it, by their flags; and which values those are. */
  const sums = new Uint32Array(values.length * 4)
  const met = new Uint32Array(values.length)
  const isMet = new Uint8Array(values.length)
  let to = 0
  for (let c = 0; c < codes.length; c++) {
    starts[c] = to
    const end = places[c + 1] ?? 0
    for (let i = places[c] ?? 0; i < end;) {
      const { from, to: next } = stepOf(codes[c] ?? 0, quarterOf(at[i] ?? 0))
      let values = 0
      for (; i < end && (at[i] ?? 0) < next * QUARTER_MS; i++) {
        const flag = flags[i] ?? 0
        if (!isEvery && !(flag & COUNTED)) continue
        const place = index[i] ?? 0
        if (!isMet[place]) {
          isMet[place] = 1
          met[values++] = place
        }
        sums[place * 4 + flag] = (sums[place * 4 + flag] ?? 0) + 1
      }
      for (let k = 0; k < values; k++) {
        const place = met[k] ?? 0
        const at = place * 4
        const both = sums[at + 3] ?? 0
        step[to] = from
        value[to] = place
        count[to] = (sums[at + 1] ?? 0) + both
        uniques[to] = (sums[at + 2] ?? 0) + both
        apart[to++] = (sums[at] ?? 0) + (sums[at + 2] ?? 0)
        sums.fill(0, at, at + 4)
        isMet[place] = 0
      }
    }
  }
  starts[codes.length] = to
  const firstStep = step.subarray(0, to).reduce((least, each) => Math.min(least, each), Infinity)
  return {
    values,
    starts,
    firstStep: to === 0 ? 0 : firstStep,
    step: smallest(step.subarray(0, to).map((each) => each - firstStep)),
    value: smallest(value.subarray(0, to)),
    count: smallest(count.subarray(0, to)),
    uniques: smallest(uniques.subarray(0, to)),
    apart: smallest(apart.subarray(0, to)),
  }
}

function smallest(numbers: Uint32Array | Float64Array): Numbers {
  let most = 0
  for (const each of numbers) most = Math.max(most, each)
  const array = indexArray(numbers.length, most + 1)
  array.set(numbers)
  return array
}

/** Where the sums of some codes in a span stand in a table, code by code. */
function* runsIn<D extends string>(
  { codes, span }: Folded<D>,
  { starts, step, firstStep }: FoldedTable,
  wanted: CodeSet,
  { start, end }: Span,
): Generator<{ readonly c: number; readonly from: number; readonly to: number }> {
  // Where all of it is asked for, so is a day that began before its first fact.
  const since = start <= span.start ? -Infinity : Math.ceil(start / QUARTER_MS) - firstStep
  const until = end >= span.end ? Infinity : Math.ceil(end / QUARTER_MS) - firstStep
  const places = placesAmong(codes, wanted)
  for (let k = 0; k < places.length; k++) {
    const c = places[k] ?? 0
    const from = firstSince(step, starts[c] ?? 0, starts[c + 1] ?? 0, since)
    const to = firstSince(step, from, starts[c + 1] ?? 0, until)
    if (from < to) yield { c, from, to }
  }
}

/** What a code comes to. */
export interface FoldedTotal {
  readonly code: number
  readonly count: number
  readonly uniques: number
  /** -1 where there is none; to the quarter of an hour where later ones are not in the span. */
  readonly lastAt: number
}

/** What each of some codes comes to in a span; a quarter of an hour is counted where it begins. */
export function* foldedTotals(folded: Folded, wanted: CodeSet, span: Span): Generator<FoldedTotal> {
  const table = tableOf(folded, folded.first)
  for (const { c, from, to } of runsIn(folded, table, wanted, span)) {
    let [count, uniques, last] = [0, 0, -1]
    for (let i = from; i < to; i++) {
      count += table.count[i] ?? 0
      uniques += table.uniques[i] ?? 0
      if ((table.count[i] ?? 0) > 0) last = Math.max(last, (table.step[i] ?? 0) + table.firstStep)
    }
    const lastOfAll = folded.lastAt[c] ?? -1
    const lastAt = quarterOf(lastOfAll) === last ? lastOfAll : last * QUARTER_MS
    yield { code: folded.codes[c] ?? 0, count, uniques, lastAt: last < 0 ? -1 : lastAt }
  }
}

/** Facts of some codes by quarters of an hour, those that begin in a span. */
export function foldedQuarters(folded: Folded, wanted: CodeSet, span: Span): QuarterSums {
  const table = tableOf(folded, folded.first)
  const { step, firstStep, count, uniques, apart } = table
  const sums = new Map<number, [count: number, uniques: number, apart: number]>()
  for (const { from, to } of runsIn(folded, table, wanted, span))
    for (let i = from; i < to; i++) {
      const quarter = (step[i] ?? 0) + firstStep
      const sum = sums.get(quarter) ?? [0, 0, 0]
      sum[0] += count[i] ?? 0
      sum[1] += uniques[i] ?? 0
      sum[2] += apart[i] ?? 0
      sums.set(quarter, sum)
    }
  const all = [...sums].sort(([a], [b]) => a - b)
  return {
    quarter: Uint32Array.from(all, ([quarter]) => quarter),
    count: Uint32Array.from(all, ([, sum]) => sum[0]),
    uniques: Uint32Array.from(all, ([, sum]) => sum[1]),
    apart: Uint32Array.from(all, ([, sum]) => sum[2]),
  }
}

/** What facts of some codes come to in a span: as `sumsOf`, where it begins and ends with steps of them. */
export function foldedSums<D extends string>(folded: Folded<D>, wanted: CodeSet, span: Span): Sums<D> {
  let [count, uniques, lastAt] = [0, 0, -1]
  for (const total of foldedTotals(folded, wanted, span)) {
    count += total.count
    uniques += total.uniques
    lastAt = Math.max(lastAt, total.lastAt)
  }
  const dimensions = Object.fromEntries(
    Object.keys(folded.tables).map((name) => [name, dimensionOf(folded, name as D, wanted, span)]),
  ) as Record<D, DimensionSums>
  return { count, uniques, lastAt, quarters: foldedQuarters(folded, wanted, span), dimensions }
}

function dimensionOf<D extends string>(
  folded: Folded<D>,
  name: D,
  wanted: CodeSet,
  span: Span,
): DimensionSums {
  const table = tableOf(folded, name)
  const sums = table.values.map(() => ({ count: 0, uniques: 0 }))
  for (const { from, to } of runsIn(folded, table, wanted, span))
    for (let i = from; i < to; i++) {
      const sum = sums[table.value[i] ?? 0]
      if (!sum) continue
      sum.count += (table.count[i] ?? 0) + (table.apart[i] ?? 0)
      sum.uniques += table.uniques[i] ?? 0
    }
  const met = [...sums.entries()].filter(([, sum]) => sum.count > 0)
  return {
    value: Uint32Array.from(met, ([place]) => place),
    count: Uint32Array.from(met, ([, sum]) => sum.count),
    uniques: Uint32Array.from(met, ([, sum]) => sum.uniques),
  }
}

function tableOf<D extends string>({ tables }: Folded<D>, name: D): FoldedTable {
  return tables[name]
}
