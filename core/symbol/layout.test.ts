import { _GF256 } from 'qr'
import { describe, expect, it } from 'vitest'
import { blocksOf } from './capacity.ts'
import { codewords } from './codewords.ts'
import { alignmentPositions, codewordPlaces, layoutOf, ROLES } from './layout.ts'
import { encode, LEVELS } from './index.ts'

const VERSIONS = Array.from({ length: 40 }, (_, i) => i + 1)

/** Which of the eight masks turns a module (ISO/IEC 18004, table 10). */
const MASKS: readonly ((x: number, y: number) => boolean)[] = [
  (x, y) => (x + y) % 2 === 0,
  (_, y) => y % 2 === 0,
  (x) => x % 3 === 0,
  (x, y) => (x + y) % 3 === 0,
  (x, y) => (Math.floor(y / 2) + Math.floor(x / 3)) % 2 === 0,
  (x, y) => ((x * y) % 2) + ((x * y) % 3) === 0,
  (x, y) => (((x * y) % 2) + ((x * y) % 3)) % 2 === 0,
  (x, y) => (((x + y) % 2) + ((x * y) % 3)) % 2 === 0,
]

describe('alignment patterns', () => {
  // ISO/IEC 18004, annex E, from memory; every version is held against the library's drawing below.
  it.each([
    [1, []],
    [2, [6, 18]],
    [7, [6, 22, 38]],
    [14, [6, 26, 46, 66]],
    [22, [6, 26, 50, 74, 98]],
    [32, [6, 34, 60, 86, 112, 138]],
    [36, [6, 24, 50, 76, 102, 128, 154]],
    [40, [6, 30, 58, 86, 114, 142, 170]],
  ])('of version %i stand in rows %j', (version, rows) => {
    expect(alignmentPositions(version)).toEqual(rows)
  })
})

describe.each(VERSIONS)('the layout of version %i', (version) => {
  const { side, roles, bits, finders, alignments } = layoutOf(version)
  const symbol = encode(`L${String(version)}`, 'L', version)
  const dark = (x: number, y: number) => symbol.modules[y]?.[x] ?? false

  it('has its patterns where an independent library draws them', () => {
    expect(side).toBe(symbol.side)
    for (const [centres, radii] of [
      [finders, [true, true, false, true]],
      [alignments, [true, false, true]],
    ] as const)
      for (const [x, y] of centres)
        radii.forEach((isDark, away) => {
          for (const [dx, dy] of [
            [away, away],
            [-away, away],
            [away, 0],
            [0, -away],
          ] as const)
            expect([x, y, dx, dy, dark(x + dx, y + dy)]).toEqual([x, y, dx, dy, isDark])
        })
    const timing = [...roles.keys()].filter((i) => ROLES[roles[i] ?? 0] === 'timing')
    for (const i of timing) {
      const [x, y] = [i % side, Math.floor(i / side)]
      expect([x, y, dark(x, y)]).toEqual([x, y, (x + y) % 2 === 0])
    }
  })

  it('has as many modules for data as the codewords need, and the remainder bits of the standard', () => {
    const { data, count, correction } = blocksOf(version, 'L')
    const modules = bits.filter((bit) => bit >= 0).length
    // ISO/IEC 18004, table 1, from memory.
    const remainders: [until: number, bits: number][] = [
      [1, 0],
      [6, 7],
      [13, 0],
      [20, 3],
      [27, 4],
      [34, 3],
      [40, 0],
    ]
    const remainder = remainders.find(([until]) => version <= until)?.[1]
    expect(modules).toBe((data + count * correction) * 8 + (remainder ?? NaN))
  })
})

describe.each(LEVELS)('codewords at level %s', (level) => {
  it.each(VERSIONS)('of version %i are read back out of the modules, each in its block', (version) => {
    const symbol = encode(`C${String(version)}`, level, version)
    const { side, bits } = layoutOf(version)
    const drawn = codewords(symbol.segments, version, level)
    const readBy = (mask: (x: number, y: number) => boolean) => {
      const words = new Uint8Array(drawn.length)
      bits.forEach((bit, i) => {
        const [x, y] = [i % side, Math.floor(i / side)]
        if (bit < 0 || bit >> 3 >= words.length) return
        const value = (symbol.modules[y]?.[x] ?? false) !== mask(x, y)
        if (value) words[bit >> 3] = (words[bit >> 3] ?? 0) | (0x80 >> (bit & 7))
      })
      return words
    }
    expect(MASKS.map(readBy)).toContainEqual(drawn)

    // A block is whole where its polynomial has the roots of its generator (ISO/IEC 18004, annex A).
    const { count, correction } = blocksOf(version, level)
    const places = codewordPlaces(version, level)
    expect(places).toHaveLength(drawn.length)
    for (let block = 0; block < count; block++) {
      const words = [...drawn.keys()]
        .filter((i) => places[i]?.block === block)
        .sort((a, b) => (places[a]?.at ?? 0) - (places[b]?.at ?? 0))
        .map((i) => drawn[i] ?? 0)
      for (const root of [0, 1, correction - 1]) expect(valueAt(words, root)).toBe(0)
    }
  })
})

function valueAt(words: readonly number[], root: number): number {
  const { exp, log } = _GF256
  return words.reduce((sum, word) => (sum === 0 ? 0 : (exp[((log[sum] ?? 0) + root) % 255] ?? 0)) ^ word, 0)
}
