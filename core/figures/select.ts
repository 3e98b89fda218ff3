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

export const isAmong = (codes: CodeSet, code: number): boolean => codes === 'all' || codes.has(code)

/** The facts of some codes in a span, code by code and in the order of time; codes without any are left out. */
export function runsOf({ codes, starts, at }: Columns, wanted: CodeSet, { start, end }: Span): Run[] {
  const runs: Run[] = []
  for (let c = 0; c < codes.length; c++) {
    const code = codes[c] ?? 0
    if (!isAmong(wanted, code)) continue
    const [first, last] = [starts[c] ?? 0, starts[c + 1] ?? 0]
    const from = (at[first] ?? 0) >= start ? first : firstSince(at, first, last, start)
    const to = (at[last - 1] ?? 0) < end ? last : firstSince(at, from, last, end)
    if (from < to) runs.push({ code, from, to })
  }
  return runs
}

/** The first of some ascending moments that is not before another; `to` where there is none. */
export function firstSince(moments: ArrayLike<number>, from: number, to: number, moment: number): number {
  let [low, high] = [from, to]
  while (low < high) {
    const middle = (low + high) >>> 1
    if ((moments[middle] ?? 0) < moment) low = middle + 1
    else high = middle
  }
  return low
}
