import { describe, expect, it } from 'vitest'
import { splitVerdict, trialsNeeded } from './index.ts'

describe('a split test', () => {
  it('has no winner before the sample that was planned, however far ahead one is', () => {
    const needed = trialsNeeded(0.05, 0.02)
    const early = splitVerdict(
      [
        { hits: 0, trials: needed - 1 },
        { hits: needed - 1, trials: needed - 1 },
      ],
      0.05,
      0.02,
    )
    expect([early.best, early.variants[1]?.chance ?? 0]).toEqual([null, expect.closeTo(1)])
    const full = splitVerdict(
      [
        { hits: Math.round(needed * 0.05), trials: needed },
        { hits: Math.round(needed * 0.09), trials: needed },
      ],
      0.05,
      0.02,
    )
    expect(full.best).toBe(1)
  })

  it('has none where the sample is there and the variants are alike', () => {
    const needed = trialsNeeded(0.05, 0.02)
    const alike = { hits: Math.round(needed * 0.05), trials: needed }
    const { best, variants } = splitVerdict([alike, alike], 0.05, 0.02)
    expect([best, variants.map(({ chance }) => chance)]).toEqual([
      null,
      [expect.closeTo(0.5), expect.closeTo(0.5)],
    ])
  })

  // Newcombe, Statistics in Medicine 17 (1998), method 10, from memory: 56 of 70 against 48 of 80 is 0.0524 to 0.3339.
  it('tells how far each is ahead of the best of the others', () => {
    const { variants } = splitVerdict(
      [
        { hits: 56, trials: 70 },
        { hits: 48, trials: 80 },
      ],
      0.6,
      0.2,
    )
    expect(variants[0]?.ahead?.low).toBeCloseTo(0.0524, 4)
    expect(variants[0]?.ahead?.high).toBeCloseTo(0.3339, 4)
  })

  it('says nothing of a variant that nobody visited', () => {
    const { variants, best, fewest } = splitVerdict(
      [
        { hits: 1, trials: 2 },
        { hits: 0, trials: 0 },
      ],
      0.05,
      0.01,
    )
    expect([variants[1]?.rate, variants[1]?.ahead, variants[0]?.ahead, best, fewest]).toEqual([
      null,
      null,
      null,
      null,
      0,
    ])
  })
})
