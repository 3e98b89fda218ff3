import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chancesOfBeing, difference, trialsNeeded, wilson } from './index.ts'

const counted = fc
  .integer({ min: 1, max: 5000 })
  .chain((trials) => fc.record({ trials: fc.constant(trials), hits: fc.integer({ min: 0, max: trials }) }))

describe('a proportion', () => {
  // Newcombe, Statistics in Medicine 17 (1998), Wilson's interval without continuity correction; from memory.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('of %i in %i lies between %f and %f', (hits, trials, low, high) => {
    const found = wilson(hits, trials)
    expect(found.low).toBeCloseTo(low, 4)
    expect(found.high).toBeCloseTo(high, 4)
  })

  it('has the ends at which the score test just rejects it', () => {
    fc.assert(
      fc.property(counted, ({ hits, trials }) => {
        const { value, low, high } = wilson(hits, trials)
        // By definition |p − p₀| = z √(p₀(1 − p₀) ⁄ n) at both ends.
        for (const end of [low, high])
          if (end > 0 && end < 1)
            expect(Math.abs(value - end)).toBeCloseTo(1.959964 * Math.sqrt((end * (1 - end)) / trials), 5)
      }),
    )
  })
})

describe('the difference of two proportions', () => {
  // Newcombe, Statistics in Medicine 17 (1998), pages 873–890, method 10, example 56/70 − 48/80; from memory.
  it('is as published', () => {
    const found = difference({ hits: 56, trials: 70 }, { hits: 48, trials: 80 })
    expect([found.value, found.low, found.high].map((n) => Number(n.toFixed(4)))).toEqual([
      0.2, 0.0524, 0.3339,
    ])
  })
  it('lies within its interval, and turned round is its negative', () => {
    fc.assert(
      fc.property(counted, counted, (a, b) => {
        const [found, turned] = [difference(a, b), difference(b, a)]
        expect(found.low <= found.value && found.value <= found.high).toBe(true)
        expect(found.low).toBeCloseTo(-turned.high, 10)
      }),
    )
  })
})

describe('the chance of being best', () => {
  it('is even for equals, and all of it together', () => {
    expect(
      chancesOfBeing([
        { hits: 10, trials: 100 },
        { hits: 10, trials: 100 },
      ])[0],
    ).toBeCloseTo(0.5, 6)
    fc.assert(
      fc.property(fc.array(counted, { minLength: 1, maxLength: 4 }), (all) => {
        expect(chancesOfBeing(all).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
      }),
      { numRuns: 20 },
    )
  })
  it('is, for one success and one failure in two trials against none in none, what integration by hand gives', () => {
    // Beta(2, 2) against Beta(1, 1): P = E[F₁] = E[X] = 1 ⁄ 2; and Beta(2, 1) against Beta(1, 1): E[X] = 2 ⁄ 3.
    expect(
      chancesOfBeing([
        { hits: 1, trials: 2 },
        { hits: 0, trials: 0 },
      ])[0],
    ).toBeCloseTo(1 / 2, 5)
    expect(
      chancesOfBeing([
        { hits: 1, trials: 1 },
        { hits: 0, trials: 0 },
      ])[0],
    ).toBeCloseTo(2 / 3, 5)
  })
})

describe('the visitors a test needs', () => {
  it('are those of the usual formula', () => {
    // 10 % against 12 %, 95 % two-sided, 80 % power: 3,841 a group (textbook value, common practice).
    expect(trialsNeeded(0.1, 0.02)).toBe(3841)
    expect(trialsNeeded(0.1, 0)).toBe(Infinity)
  })
  it('are fewer for a larger difference', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        fc.double({ min: 0.01, max: 0.2, noNaN: true }),
        (base, lift) => {
          expect(trialsNeeded(base, lift * 2)).toBeLessThanOrEqual(trialsNeeded(base, lift))
        },
      ),
    )
  })
})
