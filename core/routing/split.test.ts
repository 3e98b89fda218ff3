import fc from 'fast-check'
import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { chooseVariant } from './index.ts'

/** Visitors as the front door makes them: 64 bits of SHA-256. */
const visitor = (n: number) =>
  createHash('sha256')
    .update(`visitor ${String(n)}`)
    .digest('hex')
    .slice(0, 16)
const VISITORS = Array.from({ length: 20_000 }, (_, n) => visitor(n))
const variants = (weights: readonly number[], ended: readonly number[] = []) =>
  weights.map((weight, i) => ({ id: 'abcdefgh'.charAt(i), weight, ended: ended.includes(i) }))

function counts(weights: readonly number[], split = 'lane', ended: readonly number[] = []): number[] {
  const all = variants(weights, ended)
  const found = new Map<string, number>()
  for (const each of VISITORS) {
    const id = chooseVariant(all, each, split)?.id ?? ''
    found.set(id, (found.get(id) ?? 0) + 1)
  }
  return all.map(({ id }) => found.get(id) ?? 0)
}

/** Pearson's chi-square against the weights. */
function chiSquare(found: readonly number[], weights: readonly number[]): number {
  const sum = weights.reduce((a, b) => a + b, 0)
  const all = found.reduce((a, b) => a + b, 0)
  return found.reduce((total, n, i) => {
    const expected = (all * (weights[i] ?? 0)) / sum
    return total + (expected === 0 ? 0 : (n - expected) ** 2 / expected)
  }, 0)
}

describe('a split', () => {
  // 99.9 % points of chi-square with 1, 2 and 4 degrees of freedom (standard tables).
  it.each([
    [[1, 1], 10.828],
    [[60, 40], 10.828],
    [[1, 99], 10.828],
    [[50, 30, 20], 13.816],
    [[5, 4, 3, 2, 1], 18.467],
  ])('shares 20,000 visitors by weights %j, within chance', (weights, limit) => {
    for (const split of ['lane', 'other', 'l1', 'l2'])
      expect(chiSquare(counts(weights, split), weights)).toBeLessThan(limit)
  })

  it('gives a visitor the same variant every time', () => {
    fc.assert(
      fc.property(
        fc.stringMatching(/^[0-9a-f]{16}$/),
        fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 2, maxLength: 6 }),
        (who, weights) => {
          expect(chooseVariant(variants(weights), who, 's')).toEqual(
            chooseVariant(variants(weights), who, 's'),
          )
        },
      ),
    )
  })

  it('moves only its own visitors when a variant ends', () => {
    const before = variants([5, 3, 2])
    const after = variants([5, 3, 2], [1])
    let moved = 0
    for (const who of VISITORS.slice(0, 5000)) {
      const [was, is] = [chooseVariant(before, who, 's')?.id, chooseVariant(after, who, 's')?.id]
      if (was !== 'b') expect(is).toBe(was)
      else {
        expect(['a', 'c']).toContain(is)
        moved++
      }
    }
    expect(moved).toBeGreaterThan(1000)
    expect(chiSquare(counts([5, 3, 2], 's', [1]), [5, 0, 2])).toBeLessThan(10.828)
  })

  it('sorts visitors of another split in another way', () => {
    const both = VISITORS.slice(0, 4000).filter(
      (who) =>
        chooseVariant(variants([1, 1]), who, 'one')?.id === chooseVariant(variants([1, 1]), who, 'two')?.id,
    ).length
    // Half of 4,000, with a standard deviation of 32.
    expect(Math.abs(both - 2000)).toBeLessThan(130)
  })

  it('takes nobody where all have ended or weigh nothing', () => {
    expect([
      chooseVariant(variants([0, 0]), 'ab', 's'),
      chooseVariant(variants([1, 1], [0, 1]), 'ab', 's'),
      chooseVariant([], 'ab', 's'),
    ]).toEqual([null, null, null])
  })
})
