import type { Sums } from '@flimbo/core/figures'
import type { Span } from '@flimbo/core/time'
import { eachTotal, type Owner, type Part } from '../figures/index.ts'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import type { Pairs } from './pairs.ts'
import { codesByPlace, type Side, type SummedBy } from './sides.ts'

/** Codes that sums are kept of together, such as those of a campaign. */
export type CodesOwner = Owner & { readonly codes: ReadonlySet<number> }

/** More groups of codes than this are counted one by one, where that can be done. */
export const GROUPS_MAX = 64

/** Two sides that sums can answer: of what is not known by code there is one at most. */
export interface SummedSides {
  readonly a: SummedBy
  readonly b: SummedBy
}

/** @returns null where sums know nothing of what the two have in common */
export function summedSides(a: Side, b: Side): SummedSides | null {
  if (!a.sums || !b.sums) return null
  return a.sums.by === 'code' || b.sums.by === 'code' ? { a: a.sums, b: b.sums } : null
}

/** Some codes that a question takes together, by the places of their keys on both sides; of one that is not by code, 0. */
export interface Group {
  readonly a: number
  readonly b: number
  readonly owner: Owner
}

/** The groups of codes that a question asks about apart from each other. */
export function groupsOf({ a, b }: SummedSides, owners: readonly CodesOwner[]): Group[] {
  return owners.flatMap(({ codes, key }) => {
    const groups: Group[] = []
    const byA = a.by === 'code' ? codesByPlace(codes, (code) => a.placeOf(code)) : new Map([[0, codes]])
    for (const [place, own] of byA) {
      const byB = b.by === 'code' ? codesByPlace(own, (code) => b.placeOf(code)) : new Map([[0, own]])
      for (const [other, both] of byB)
        groups.push({
          a: place,
          b: other,
          owner: { codes: both, key: both.size === codes.size ? key : null },
        })
    }
    return groups
  })
}

/** The sums of an owner in a part and a span. */
export type SumsOf = (owner: Owner) => Sums<ScanDimension> | null

/** Those of a part, looked for once for each set of codes. */
export function sumsIn(part: Part<ScanDimension>, span: Span): SumsOf {
  const found = new Map<Owner['codes'], Sums<ScanDimension> | null>()
  return (owner) => {
    const there = found.get(owner.codes)
    if (there !== undefined) return there
    const sums = part.sums(owner, span)
    found.set(owner.codes, sums)
    return sums
  }
}

/** Counts what a part's sums say of some groups of codes. */
export function countSums(
  part: Part<ScanDimension>,
  sumsOf: SumsOf,
  { a, b }: SummedSides,
  groups: readonly Group[],
  pairs: Pairs,
): void {
  const [isA, rest] = a.by === 'code' ? [false, b] : [true, a]
  if (rest.by === 'code') return
  for (const group of groups)
    addSums(part, sumsOf(group.owner), rest, (place, count, uniques) => {
      pairs.addSum(isA ? place : group.a, isA ? group.b : place, count, uniques)
    })
}

/** The same of what is known by code on both sides. */
export function countTotals(
  part: Part<ScanDimension>,
  span: Span,
  codes: ReadonlySet<number>,
  { a, b }: SummedSides,
  pairs: Pairs,
): void {
  if (a.by !== 'code' || b.by !== 'code') return
  eachTotal(part, codes, span, (code, count, uniques) => {
    pairs.addSum(a.placeOf(code), b.placeOf(code), count, uniques)
  })
}

function addSums(
  part: Part<ScanDimension>,
  sums: Sums<ScanDimension> | null,
  by: Exclude<SummedBy, { by: 'code' }>,
  add: (place: number, count: number, uniques: number) => void,
): void {
  if (!sums) return
  if (by.by === 'quarter') {
    const { quarter, count, uniques } = sums.quarters
    for (let q = 0; q < quarter.length; q++) add(by.placeOf(quarter[q] ?? 0), count[q] ?? 0, uniques[q] ?? 0)
    return
  }
  const { value, count, uniques } = sums.dimensions[by.dimension]
  const places = by.placesIn(part)
  const isCounted = by.dimension === 'way' ? wayTest(part) : () => true
  for (let v = 0; v < value.length; v++) {
    const at = value[v] ?? 0
    if (isCounted(at)) add(places[at] ?? 0, count[v] ?? 0, uniques[v] ?? 0)
  }
}

/** Of ways what is kept apart is summed up as well. */
function wayTest({ values }: Part<ScanDimension>): (place: number) => boolean {
  return (place) => readWay(String(values.way[place])).apart === null
}
