import { COUNTED, runsOf, type Columns, type Run } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import type { Part } from '../figures/index.ts'
import type { ScanDimension } from '../scans/queries.ts'
import type { CodesOwner } from './countSums.ts'
import type { FactFilter, FactTest } from './factFilters.ts'
import type { Pairs } from './pairs.ts'
import type { Chosen, Side } from './sides.ts'

/** Facts of some codes that are counted by two things at once. */
export interface FactCount {
  readonly owners: readonly CodesOwner[]
  readonly a: Side
  readonly b: Side
  readonly filters: readonly FactFilter[]
  readonly pairs: Pairs
}

/** Counts the facts of a part one by one; questions that choose the same facts look for them once. */
export function countFacts(part: Part<ScanDimension>, span: Span, counts: readonly FactCount[]): void {
  const columns = counts.length === 0 ? undefined : part.columns?.()
  if (!columns) return
  for (const alike of alikeOf(counts)) {
    const [{ owners, filters }] = alike
    const runs = owners.flatMap(({ codes }) => runsOf(columns, codes, span))
    const most = runs.reduce((longest, { from, to }) => Math.max(longest, to - from), 0)
    const [facts, a, b] = [new Uint32Array(most), new Uint32Array(most), new Uint32Array(most)]
    const tests = filters.map((filter) => filter.testIn(part, columns))
    for (const run of runs) {
      const ofRun = tests.map((testOf) => testOf(run.code))
      const length = chooseFacts(columns, run, ofRun, facts)
      if (length === 0) continue
      const chosen: Chosen = { columns, code: run.code, facts, length }
      for (const count of alike) {
        count.a.fill(part, chosen, a)
        count.b.fill(part, chosen, b)
        count.pairs.addFacts(a, b, columns.flags, facts, length)
      }
    }
  }
}

type Alike = [FactCount, ...FactCount[]]
/** Questions that choose the same facts: equal codes and filters are the same ones. */
function alikeOf(counts: readonly FactCount[]): Alike[] {
  const groups: Alike[] = []
  for (const count of counts) {
    const there = groups.find(
      ([first]) => first.owners === count.owners && areSame(first.filters, count.filters),
    )
    if (there) there.push(count)
    else groups.push([count])
  }
  return groups
}
const areSame = (a: readonly FactFilter[], b: readonly FactFilter[]) =>
  a.length === b.length && a.every((each, i) => each === b[i])

/** Chooses the facts of a run that are counted and that every test takes. @returns how many there are */
function chooseFacts(
  { flags }: Columns<ScanDimension>,
  { from, to }: Run,
  tests: readonly FactTest[],
  facts: Uint32Array,
): number {
  let length = 0
  for (let i = from; i < to; i++) {
    facts[length] = i
    length += (flags[i] ?? 0) & COUNTED
  }
  for (const isWanted of tests) {
    let left = 0
    for (let k = 0; k < length; k++) {
      const i = facts[k] ?? 0
      facts[left] = i
      if (isWanted(i)) left++
    }
    length = left
  }
  return length
}
