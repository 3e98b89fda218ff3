import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { QUARTER_MS } from '../time/index.ts'
import {
  COUNTED,
  fingerprintOf,
  mergeColumns,
  packColumns,
  placesAmong,
  runsOf,
  sumsOf,
  UNIQUE,
  type Columns,
  type FactRows,
} from './index.ts'

interface Given {
  at: number
  code: number
  flags: number
  place: string
}

const LATE = Date.UTC(9999, 11, 31)
const given: fc.Arbitrary<Given> = fc.record({
  at: fc.oneof(
    { weight: 9, arbitrary: fc.integer({ min: 0, max: 20 * QUARTER_MS }) },
    { weight: 1, arbitrary: fc.constantFrom(0, LATE, LATE + 1) },
  ),
  code: fc.integer({ min: 1, max: 4 }),
  flags: fc.constantFrom(0, COUNTED, COUNTED | UNIQUE),
  place: fc.constantFrom('a', 'b', 'c'),
})
const facts = fc.array(given, { minLength: 1, maxLength: 60 })

const rowsOf = (all: readonly Given[], firstId = 1): FactRows<'place'> => ({
  id: all.map((_each, i) => firstId + i),
  at: all.map(({ at }) => at),
  code: all.map(({ code }) => code),
  flags: all.map(({ flags }) => flags),
  dimensions: { place: all.map(({ place }) => place) },
})

/** Columns as the facts they stand for, in their order. */
const factsOf = ({ codes, starts, at, id, flags, dimensions: { place }, firstId }: Columns<'place'>) =>
  [...codes].flatMap((code, c) =>
    Array.from({ length: (starts[c + 1] ?? 0) - (starts[c] ?? 0) }, (_each, k) => {
      const i = (starts[c] ?? 0) + k
      return {
        id: firstId + (id[i] ?? 0),
        at: at[i],
        code,
        flags: flags[i],
        place: place.values[place.index[i] ?? -1],
      }
    }),
  )

describe('facts in columns', () => {
  it('are those that were packed, by code and then in the order of time', () => {
    fc.assert(
      fc.property(facts, (all) => {
        const sorted = all
          .map((each, i) => ({ ...each, id: i + 1 }))
          .sort((a, b) => a.code - b.code || a.at - b.at || a.id - b.id)
        expect(factsOf(packColumns(rowsOf(all)))).toEqual(sorted)
      }),
    )
  })

  it('are the same whether they are packed at once, or some at a time and put together', () => {
    fc.assert(
      fc.property(facts, fc.integer({ min: 1, max: 20 }), (all, atOnce) => {
        const parts = Array.from({ length: Math.ceil(all.length / atOnce) }, (_each, i) =>
          packColumns(rowsOf(all.slice(i * atOnce, (i + 1) * atOnce), 1 + i * atOnce)),
        )
        const merged = mergeColumns(parts)
        expect(factsOf(merged)).toEqual(factsOf(packColumns(rowsOf(all))))
        expect([merged.firstId, merged.lastId, merged.length]).toEqual([1, all.length, all.length])
      }),
    )
  })

  it('are summed up to what a count of each comes to, moments of a wrong clock too', () => {
    const span = fc.tuple(
      fc.integer({ min: 0, max: 21 * QUARTER_MS }),
      fc.constantFrom(5 * QUARTER_MS, LATE + 2),
    )
    fc.assert(
      fc.property(facts, fc.subarray([1, 2, 3, 4]), span, (all, codes, [start, end]) => {
        const columns = packColumns(rowsOf(all))
        const wanted = new Set(codes)
        const own = all.filter(({ code, at }) => wanted.has(code) && at >= start && at < end)
        const counted = own.filter(({ flags }) => flags > 0)
        const sums = sumsOf(columns, wanted, { start, end }, [])
        expect(sums.count).toBe(counted.length)
        expect(sums.uniques).toBe(counted.filter(({ flags }) => flags === (COUNTED | UNIQUE)).length)
        expect(sums.lastAt).toBe(Math.max(-1, ...counted.map(({ at }) => at)))
        const quarters = [...new Set(own.map(({ at }) => Math.floor(at / QUARTER_MS)))].sort((a, b) => a - b)
        expect([...sums.quarters.quarter]).toEqual(quarters)
        expect([...sums.quarters.apart]).toEqual(
          quarters.map(
            (quarter) =>
              own.filter(({ at, flags }) => flags === 0 && Math.floor(at / QUARTER_MS) === quarter).length,
          ),
        )
        const { value, count } = sums.dimensions.place
        for (const [i, place] of [...value].entries())
          expect(count[i]).toBe(
            counted.filter((each) => each.place === columns.dimensions.place.values[place]).length,
          )
      }),
    )
  })

  it('of a code in a span stand side by side', () => {
    const columns = packColumns(
      rowsOf([3, 1, 2, 1].map((code, i) => ({ at: i, code, flags: 1, place: 'a' }))),
    )
    expect(runsOf(columns, new Set([1, 3]), { start: 1, end: 9 })).toEqual([{ code: 1, from: 0, to: 2 }])
  })

  it('bear a fingerprint that tells which of their codes are among others, and is the same for all that share them', () => {
    const columns = packColumns(rowsOf([1, 2, 3].map((code) => ({ at: 0, code, flags: 1, place: 'a' }))))
    expect(fingerprintOf(columns, new Set([1, 2]))).toBe(fingerprintOf(columns, new Set([2, 9, 1])))
    expect(fingerprintOf(columns, new Set([1, 2]))).not.toBe(fingerprintOf(columns, new Set([1, 3])))
    expect(fingerprintOf(columns, 'all')).toBe(fingerprintOf(columns, new Set([1, 2, 3])))
  })
})

describe('codes that are meant', () => {
  it('are found where they stand, however few or many are asked for', () => {
    const some = fc.uniqueArray(fc.integer({ min: 1, max: 300 }), { maxLength: 200 })
    fc.assert(
      fc.property(some, some, (codes, wanted) => {
        const sorted = Uint32Array.from(codes).sort()
        const found = (among: ReadonlySet<number>) => Array.from(placesAmong(sorted, among))
        const naive = (among: ReadonlySet<number>) =>
          [...sorted.keys()].filter((c) => among.has(sorted[c] ?? 0))
        for (const many of [wanted, wanted.slice(0, 3)]) {
          expect(found(new Set(many))).toEqual(naive(new Set(many)))
        }
        expect(Array.from(placesAmong(sorted, 'all'))).toEqual([...sorted.keys()])
      }),
    )
  })
})
