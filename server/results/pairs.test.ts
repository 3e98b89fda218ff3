import { describe, expect, it } from 'vitest'
import { Pairs, PAIRS_MAX, TooManyPairs } from './pairs.ts'

describe('counts of pairs', () => {
  it('are the same in an array and in a map', () => {
    const counted = (as: number, bs: number) => {
      const pairs = new Pairs(as, bs)
      const [a, b, facts] = [Uint32Array.of(0, 1, 1), Uint32Array.of(2, 2, 0), Uint32Array.of(0, 1, 2)]
      pairs.addFacts(a, b, Uint8Array.of(1, 3, 1), facts, 3)
      pairs.addSum(1, 2, 10, 4)
      return pairs.counts().sort((x, y) => x.a - y.a || x.b - y.b)
    }
    expect(counted(2, 3)).toEqual([
      { a: 0, b: 2, scans: 1, uniques: 0 },
      { a: 1, b: 0, scans: 1, uniques: 0 },
      { a: 1, b: 2, scans: 11, uniques: 5 },
    ])
    expect(counted(2000, 3000)).toEqual(counted(2, 3))
  })

  it('do not grow beyond what can be read', () => {
    const pairs = new Pairs(2000, 3000)
    expect(() => {
      for (let pair = 0; pair <= PAIRS_MAX; pair++) pairs.addSum(pair % 2000, Math.floor(pair / 2000), 1, 0)
    }).toThrow(TooManyPairs)
  })
})
