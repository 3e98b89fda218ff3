import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import jsQR from 'jsqr'
import { blockDamage, correctableOf, unusedCorrection } from './damage.ts'
import { encode, LEVELS, type Level } from './index.ts'
import { layoutOf } from './layout.ts'

describe('what a block can lose', () => {
  // ISO/IEC 18004, table 9, the last of (c, k, r), from memory; decoders agree below.
  it.each<[number, Level, number]>([
    [1, 'L', 2],
    [1, 'M', 4],
    [1, 'Q', 6],
    [1, 'H', 8],
    [2, 'L', 4],
    [3, 'L', 7],
    [5, 'Q', 9],
    [7, 'H', 13],
  ])('of version %i at level %s is %i codewords', (version, level, words) => {
    expect(correctableOf(version, level)).toBe(words)
  })
})

/** A symbol with some of its codewords wrong, at four pixels a module, read by a decoder. */
function readWith(version: number, level: Level, isWrong: (x: number, y: number) => boolean) {
  const symbol = encode('DAMAGE', level, version)
  const side = (symbol.side + 8) * 4
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255)
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const [column, row] = [Math.floor(x / 4) - 4, Math.floor(y / 4) - 4]
      const dark = symbol.modules[row]?.[column] ?? false
      if (dark !== isWrong(column, row)) pixels.fill(0, (y * side + x) * 4, (y * side + x) * 4 + 3)
    }
  return jsQR(pixels, side, side)?.data ?? null
}

describe('damage', () => {
  it('counts a codeword once, however many of its modules are wrong, and nothing that is no codeword', () => {
    const { side, bits, roles } = layoutOf(5)
    const first = (x: number, y: number) => (bits[y * side + x] ?? -1) >> 3 === 0
    expect(blockDamage(5, 'Q', first).map(({ lost }) => lost)).toEqual([1, 0, 0, 0])
    expect(blockDamage(5, 'Q', (x, y) => roles[y * side + x] !== 0).every(({ lost }) => lost === 0)).toBe(
      true,
    )
    expect(unusedCorrection(blockDamage(5, 'Q', () => false))).toBe(1)
    // 67 of 134 codewords are for data and correction of each block: all of them lost is more than can be.
    expect(unusedCorrection(blockDamage(5, 'Q', () => true))).toBeLessThan(0)
  })

  it('tells what a decoder makes good and what not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.constantFrom(...LEVELS),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        fc.integer({ min: 0, max: 60 }),
        (version, level, chances, percent) => {
          const { side, bits } = layoutOf(version)
          // Whole codewords, so that a lost one is lost to every decoder.
          const words = Math.max(...bits) >> 3
          const lost = new Set<number>()
          for (let word = 0; word <= words; word++)
            if ((chances.next().value ?? 1) * 100 < percent) lost.add(word)
          const wrong = (x: number, y: number) => {
            const bit = bits[y * side + x] ?? -1
            return bit >= 0 && lost.has(bit >> 3)
          }
          const left = unusedCorrection(blockDamage(version, level, wrong))
          const read = readWith(version, level, wrong)
          // Small symbols keep a little correction back, which this decoder does not.
          if (left >= 0) expect(read).toBe('DAMAGE')
          else if (version > 3) expect(read).not.toBe('DAMAGE')
        },
      ),
      { numRuns: 60 },
    )
  })
})
