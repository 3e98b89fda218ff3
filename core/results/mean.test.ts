import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { meanInterval, spreadOf, studentT } from './index.ts'

describe('means', () => {
  // Critical values of Student's t, two-sided 95 % (NIST/SEMATECH e-Handbook 1.3.6.7.2, from memory).
  it.each([
    [1, 12.706],
    [2, 4.303],
    [5, 2.571],
    [10, 2.228],
    [30, 2.042],
    [100, 1.984],
    [1000, 1.962],
  ])('with %i degrees of freedom, reach %f', (df, t) => {
    expect(studentT(df)).toBeCloseTo(t, 3)
  })

  // NIST/SEMATECH e-Handbook 1.3.5.2, data set ZARR13.DAT, from memory: 195 values.
  it('have the interval of the handbook', () => {
    const found = meanInterval({ count: 195, mean: 9.26146, deviation: 0.022789 })
    expect(found?.low).toBeCloseTo(9.258242, 5)
    expect(found?.high).toBeCloseTo(9.264679, 5)
  })

  it('of one value or none have no interval', () => {
    expect(spreadOf([])).toBeNull()
    expect(spreadOf([4])).toEqual({ count: 1, mean: 4, deviation: null, median: 4, least: 4, most: 4 })
    expect(meanInterval({ count: 1, mean: 4, deviation: null })).toBeNull()
  })

  // By hand: 2, 4, 4, 4, 5, 5, 7, 9 have mean 5 and a sum of squares of 32.
  it('are those of values by hand', () => {
    expect(spreadOf([9, 4, 2, 4, 5, 7, 4, 5])).toEqual({
      count: 8,
      mean: 5,
      deviation: Math.sqrt(32 / 7),
      median: 4.5,
      least: 2,
      most: 9,
    })
  })

  it('lie within their values, whatever these are', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1e6, max: 1e6 }), { minLength: 1 }), (values) => {
        const found = spreadOf(values)
        const [least, most] = [Math.min(...values), Math.max(...values)]
        expect(found).toMatchObject({ count: values.length, least, most })
        for (const each of [found?.mean ?? NaN, found?.median ?? NaN]) {
          expect(each).toBeGreaterThanOrEqual(least - 1e-6)
          expect(each).toBeLessThanOrEqual(most + 1e-6)
        }
      }),
    )
  })
})
