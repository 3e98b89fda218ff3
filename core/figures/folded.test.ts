import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { QUARTER_MS } from '../time/index.ts'
import {
  addDimension,
  COUNTED,
  foldColumns,
  foldedQuarters,
  foldedSums,
  foldedTotals,
  packColumns,
  pickFacts,
  quartersOf,
  runsOf,
  sumsOf,
  UNIQUE,
  type Columns,
  type DimensionSums,
  type DimensionValue,
  type Folded,
  type Tallied,
} from './index.ts'

type Name = 'way' | 'place'
const CODES = [1, 2, 3]
/** Quarters of an hour of a day, as short as it may be here. */
const DAY = 4
const DAYS = 6

const facts = fc.array(
  fc.record({
    at: fc.integer({ min: 0, max: DAYS * DAY * QUARTER_MS - 1 }),
    code: fc.constantFrom(...CODES),
    flags: fc.constantFrom(0, COUNTED, COUNTED | UNIQUE),
    way: fc.constantFrom('otherwise', '7', 'full'),
    place: fc.integer({ min: 1, max: 3 }),
  }),
  { minLength: 1, maxLength: 60 },
)
type Given = typeof facts extends fc.Arbitrary<infer T> ? T : never

const columnsOf = (all: Given): Columns<Name> =>
  packColumns({
    id: all.map((_each, i) => i + 1),
    at: all.map(({ at }) => at),
    code: all.map(({ code }) => code),
    flags: all.map(({ flags }) => flags),
    dimensions: { way: all.map(({ way }) => way), place: all.map(({ place }) => place) },
  })
const dayOf = (_code: number, quarter: number) => {
  const from = quarter - (quarter % DAY)
  return { from, to: from + DAY }
}
const fold = (columns: Columns<Name>) => foldColumns<Name>(columns, { first: 'way', stepOf: dayOf })
const codeSets = fc.oneof(
  fc.constant('all' as const),
  fc.subarray(CODES).map((codes) => new Set(codes)),
)
/** From the beginning of a day to that of another. */
const days = fc
  .tuple(fc.integer({ min: -1, max: DAYS }), fc.integer({ min: 0, max: DAYS + 1 }))
  .map(([from, length]) => ({ start: from * DAY * QUARTER_MS, end: (from + length) * DAY * QUARTER_MS }))

const tallied = (values: readonly DimensionValue[], sums: DimensionSums) => {
  const found: Tallied<DimensionValue> = new Map()
  addDimension(found, values, sums)
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1))
}
const valuesOf = (folded: Folded<Name>, name: Name) => folded.tables[name].values

describe('facts that are folded', () => {
  it('come to what they came to, in any days, at any codes, by every dimension', () => {
    fc.assert(
      fc.property(facts, codeSets, days, (all, codes, span) => {
        const columns = columnsOf(all)
        const folded = fold(columns)
        const [sums, were] = [foldedSums(folded, codes, span), sumsOf<Name>(columns, codes, span, ['way'])]
        expect([sums.count, sums.uniques]).toEqual([were.count, were.uniques])
        expect(sums.quarters).toEqual(were.quarters)
        for (const name of ['way', 'place'] as const)
          expect(tallied(valuesOf(folded, name), sums.dimensions[name])).toEqual(
            tallied(columns.dimensions[name].values, were.dimensions[name]),
          )
      }),
    )
  })

  it('are counted by quarters of an hour in any span of those, and the last moment is known as exactly', () => {
    const quarter = fc.integer({ min: -1, max: DAYS * DAY + 1 })
    fc.assert(
      fc.property(facts, codeSets, quarter, quarter, (all, codes, from, to) => {
        const columns = columnsOf(all)
        const span = { start: from * QUARTER_MS, end: to * QUARTER_MS }
        expect(foldedQuarters(fold(columns), codes, span)).toEqual(
          quartersOf(columns, runsOf(columns, codes, span)),
        )
        for (const { code, count, lastAt } of foldedTotals(fold(columns), codes, span)) {
          const own = all.filter(
            (each) =>
              each.code === code && each.flags & COUNTED && each.at >= span.start && each.at < span.end,
          )
          expect(count).toBe(own.length)
          const last = Math.max(-1, ...own.map(({ at }) => at))
          expect(Math.floor(lastAt / QUARTER_MS)).toBe(Math.floor(last / QUARTER_MS))
        }
      }),
    )
  })

  it('know the last moment of each code to the millisecond', () => {
    const columns = columnsOf([
      { at: 5, code: 1, flags: COUNTED, way: '7', place: 1 },
      { at: QUARTER_MS + 7, code: 1, flags: COUNTED, way: '7', place: 1 },
      { at: QUARTER_MS + 9, code: 1, flags: 0, way: '7', place: 1 },
    ])
    expect(foldedSums(fold(columns), 'all', { start: -Infinity, end: Infinity }).lastAt).toBe(QUARTER_MS + 7)
  })

  it('are fewer numbers than facts where they are alike', () => {
    const alike = Array.from({ length: 5000 }, (_each, i) => ({
      at: i * 100,
      code: 1,
      flags: COUNTED,
      way: '7' as const,
      place: 1 + (i % 2),
    }))
    const { tables } = fold(columnsOf(alike))
    expect([tables.way.count.length, tables.place.count.length]).toEqual([1, 2])
  })
})

describe('facts that are picked', () => {
  it('are those at the places given, in their order, with no value that none of them has', () => {
    fc.assert(
      fc.property(facts, fc.infiniteStream(fc.boolean()), (all, choice) => {
        const columns = columnsOf(all)
        const places = Uint32Array.from([...columns.at.keys()].filter(() => choice.next().value as boolean))
        const picked = pickFacts(columns, places)
        if (places.length === 0) {
          expect(picked).toBeNull()
          return
        }
        const factAt = (from: Columns<Name>, i: number) => ({
          id: from.firstId + (from.id[i] ?? 0),
          code: from.codes[from.starts.findLastIndex((start) => start <= i)],
          at: from.at[i],
          flags: from.flags[i],
          way: from.dimensions.way.values[from.dimensions.way.index[i] ?? 0],
          place: from.dimensions.place.values[from.dimensions.place.index[i] ?? 0],
        })
        const found = picked ? Array.from({ length: picked.length }, (_each, i) => factAt(picked, i)) : []
        expect(found).toEqual([...places].map((place) => factAt(columns, place)))
        const ids = found.map(({ id }) => id)
        expect([picked?.firstId, picked?.lastId]).toEqual([Math.min(...ids), Math.max(...ids)])
        expect(new Set(picked?.dimensions.place.values)).toEqual(new Set(found.map(({ place }) => place)))
      }),
    )
  })
})
