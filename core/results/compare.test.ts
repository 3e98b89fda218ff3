import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { adjustedForMany, compareRates, fisherTest, NO_FIGURES, type AnswerRow } from './index.ts'

const counted = (hits: number, trials: number) => ({ hits, trials })

describe('whether two rates differ', () => {
  it('is as likely as Fisher’s lady tasting tea is right by chance: 3 of 4 against 1 of 4 (The Design of Experiments, 1935)', () => {
    // Of 70 choices 1 + 16 are as good or better, and as many as bad or worse.
    expect(fisherTest(counted(3, 4), counted(1, 4))).toBeCloseTo(34 / 70, 9)
    expect(fisherTest(counted(4, 4), counted(0, 4))).toBeCloseTo(2 / 70, 9)
  })

  it('is what a sum over all tables says (counted out by whole numbers)', () => {
    const choose = (n: number, k: number): bigint => {
      let result = 1n
      for (let i = 0; i < k; i++) result = (result * BigInt(n - i)) / BigInt(i + 1)
      return result
    }
    const trials = fc.integer({ min: 1, max: 60 })
    fc.assert(
      fc.property(trials, trials, fc.nat(60), fc.nat(60), (n, m, x, y) => {
        const [a, b] = [counted(x % (n + 1), n), counted(y % (m + 1), m)]
        const hits = a.hits + b.hits
        const ways = (k: number) => choose(n, k) * choose(m, hits - k)
        const own = ways(a.hits)
        let rarer = 0n
        for (let k = Math.max(0, hits - m); k <= Math.min(n, hits); k++) if (ways(k) <= own) rarer += ways(k)
        const exact = Number((rarer * 10n ** 15n) / choose(n + m, hits)) / 1e15
        expect(fisherTest(a, b)).toBeCloseTo(exact, 6)
      }),
    )
  })

  it('is the same both ways, of millions too', () => {
    const [a, b] = [counted(50_500, 5_000_000), counted(49_000, 5_000_000)]
    expect(fisherTest(a, b)).toBeCloseTo(fisherTest(b, a), 9)
    // About 4.8 standard deviations: 1.8e-6 by the normal distribution.
    expect(fisherTest(a, b)).toBeGreaterThan(1e-6)
    expect(fisherTest(a, b)).toBeLessThan(3e-6)
    expect(fisherTest(counted(0, 0), b)).toBe(1)
    expect(fisherTest(counted(0, 9), counted(0, 9))).toBe(1)
    expect(fisherTest(counted(0, 100_000), counted(90_000, 100_000))).toBeLessThan(1e-9)
  })
})

describe('many comparisons', () => {
  // Benjamini & Hochberg, J. R. Stat. Soc. B 57 (1995), their example, from memory.
  const VALUES = [
    ...[0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344],
    ...[0.0459, 0.324, 0.4262, 0.5719, 0.6528, 0.759, 1.0],
  ]
  it('are corrected as in the example: four of 15 are rejected at 0.05, where Bonferroni rejects three', () => {
    expect(adjustedForMany(VALUES).filter((value) => value <= 0.05)).toHaveLength(4)
    expect(VALUES.filter((value) => value * 15 <= 0.05)).toHaveLength(3)
  })

  it('are rejected as the step-up procedure says, in any order', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 30 }), (values) => {
        const sorted = [...values].sort((x, y) => x - y)
        const last = sorted.findLastIndex((value, i) => value <= (0.05 * (i + 1)) / values.length)
        const limit = last < 0 ? -1 : (sorted[last] ?? -1)
        const rejected = adjustedForMany(values).map((value) => value <= 0.05 + 1e-12)
        expect(rejected).toEqual(values.map((value) => value <= limit + 1e-12))
      }),
    )
  })
})

describe('rates of keys', () => {
  const row = (
    key: string,
    scans: number,
    leads: number,
    before: [number, number] | null = null,
  ): AnswerRow => ({
    ...{ ...NO_FIGURES, keys: [key], scans, leads },
    before: before && { ...NO_FIGURES, scans: before[0], leads: before[1] },
  })
  it('are held against all others together, the surest difference first; few scans are left out', () => {
    const rows = [row('one', 1000, 50), row('two', 1000, 52), row('better', 1000, 120), row('few', 4, 4)]
    const total = { ...NO_FIGURES, scans: 3004, leads: 226 }
    const found = compareRates('leadRate', rows, total, 'others')
    expect(found.map(({ keys }) => keys[0])).toEqual(['better', 'one', 'two'])
    expect(found[0]?.isMoreThanChance).toBe(true)
    expect(found[0]?.other.value).toBeCloseTo(106 / 2004, 9)
    expect(found[0]?.above.low).toBeGreaterThan(0)
  })
  it('are held against what they were before', () => {
    const rows = [row('up', 500, 60, [500, 20]), row('new', 500, 60, [0, 0])]
    const found = compareRates('leadRate', rows, NO_FIGURES, 'before')
    expect(found.map(({ keys, isMoreThanChance }) => [keys[0], isMoreThanChance])).toEqual([['up', true]])
    expect(compareRates('scans', rows, NO_FIGURES, 'before')).toEqual([])
  })
})
