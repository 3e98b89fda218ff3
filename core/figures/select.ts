import type { Span } from '../time/index.ts'
import type { Columns } from './columns.ts'

/** Which codes are meant. */
export type CodeSet = ReadonlySet<number> | 'all'

/** Facts side by side: from the first to before the last. */
export interface Run {
  readonly code: number
  readonly from: number
  readonly to: number
}

/** Few codes are looked for one by one; of many, all that there are are looked at. */
const FEW = 16

/**
 * Where those of some codes stand that are among others, ascending.
 *
 * @param codes ascending
 */
export function placesAmong(codes: Uint32Array, wanted: CodeSet): ArrayLike<number> {
  if (wanted === 'all') return codes.map((_code, c) => c)
  const places: number[] = []
  if (wanted.size * FEW > codes.length) {
    for (let c = 0; c < codes.length; c++) if (wanted.has(codes[c] ?? 0)) places.push(c)
    return places
  }
  for (const code of wanted) {
    const c = firstSince(codes, 0, codes.length, code)
    if (codes[c] === code) places.push(c)
  }
  return places.sort((a, b) => a - b)
}

/** The facts of some codes in a span, code by code and in the order of time; codes without any are left out. */
export function runsOf({ codes, starts, at }: Columns, wanted: CodeSet, { start, end }: Span): Run[] {
  const runs: Run[] = []
  const places = placesAmong(codes, wanted)
  for (let k = 0; k < places.length; k++) {
    const c = places[k] ?? 0
    const code = codes[c] ?? 0
    const [first, last] = [starts[c] ?? 0, starts[c + 1] ?? 0]
    const from = (at[first] ?? 0) >= start ? first : firstSince(at, first, last, start)
    const to = (at[last - 1] ?? 0) < end ? last : firstSince(at, from, last, end)
    if (from < to) runs.push({ code, from, to })
  }
  return runs
}

/** The first of some ascending moments, or other numbers, that is not before another; `to` where there is none. */
export function firstSince(moments: ArrayLike<number>, from: number, to: number, moment: number): number {
  let [low, high] = [from, to]
  while (low < high) {
    const middle = (low + high) >>> 1
    if ((moments[middle] ?? 0) < moment) low = middle + 1
    else high = middle
  }
  return low
}
