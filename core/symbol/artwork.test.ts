import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { contrastRatio, gradeArtwork, moduleReflectances, reflectance } from './artwork.ts'
import { sceneColours } from './colourPixels.ts'
import { encode, LEVELS } from './index.ts'
import { layoutOf } from './layout.ts'
import { PLAIN_LOOK } from './look.ts'
import { styledScene } from './styled.ts'

const QUIET = 4
const symbol = encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'M', 3)

/** Reflectances of a symbol whose dark and light modules throw back so much. */
function bitmap(dark: number, light: number, change: (x: number, y: number) => number | null = () => null) {
  const across = symbol.side + 2 * QUIET
  return Float64Array.from({ length: across * across }, (_, i) => {
    const [x, y] = [(i % across) - QUIET, Math.floor(i / across) - QUIET]
    return change(x, y) ?? (symbol.modules[y]?.[x] ? dark : light)
  })
}
const graded = (...of: Parameters<typeof bitmap>) => gradeArtwork(symbol, bitmap(...of), QUIET)
const { side, bits } = layoutOf(symbol.version)
const wordAt = (x: number, y: number) =>
  x < 0 || y < 0 || x >= side || y >= side ? -1 : (bits[y * side + x] ?? -1) >> 3

/** One value for dark modules and one for light. */
const flipped = (x: number, y: number, ifDark: number, ifLight: number) =>
  symbol.modules[y]?.[x] ? ifDark : ifLight

describe('artwork', () => {
  // Limits of ISO/IEC 15415, from memory.
  it.each([
    [0.1, 0.8, 'A'],
    [0.1, 0.799, 'B'],
    [0.2, 0.75, 'B'],
    [0.3, 0.7, 'C'],
    [0.5, 0.7, 'D'],
    [0.5, 0.69, 'F'],
  ])('whose modules throw back %f and %f has contrast %s', (dark, light, grade) => {
    expect(graded(dark, light).contrast.grade).toBe(grade)
  })

  it('in black on white is an A in everything', () => {
    const grades = graded(0, 1)
    expect(grades.overall).toBe('A')
    expect([grades.contrast.value, grades.modulation.grade, grades.correction.value]).toEqual([1, 'A', 1])
    expect(grades.blocks.every(({ lost }) => lost === 0)).toBe(true)
  })

  it('with lost codewords has as much correction left as there is, and modulation falls with it', () => {
    // Version 3 at level M is one block with 26 codewords for correction: 13 can be made good.
    const [capacity] = graded(0, 1).blocks.map(({ correctable }) => correctable)
    expect([symbol.version, symbol.level, capacity]).toEqual([3, 'M', 13])
    for (const [words, grade] of [
      [4, 'A'],
      [5, 'B'],
      [6, 'B'],
      [7, 'C'],
      [9, 'D'],
      [13, 'F'],
    ] as const) {
      const grades = graded(0, 1, (x, y) => {
        const word = wordAt(x, y)
        return word >= 0 && word < words ? flipped(x, y, 1, 0) : null
      })
      expect([words, grades.correction.grade, grades.correction.value]).toEqual([
        words,
        grade,
        1 - words / 13,
      ])
      expect([words, grades.decode.grade]).toEqual([words, 'A'])
    }
  })

  it('with pale modules has the modulation of the palest, unless error correction can do without them', () => {
    const pale = (words: number) =>
      graded(0, 1, (x, y) => (wordAt(x, y) >= 0 && wordAt(x, y) < words ? flipped(x, y, 0.34, 0.66) : null))
    // 2 · |0.34 − 0.5| / 1 = 0.32: grade C.
    expect(pale(70).modulation.grade).toBe('C')
    expect(pale(3).modulation.grade).toBe('A')
    expect(pale(6).modulation.grade).toBe('B')
  })

  it('with wrong modules in a finder pattern loses a grade for each', () => {
    for (const [wrong, grade] of [
      [1, 'B'],
      [2, 'C'],
      [3, 'D'],
      [4, 'F'],
    ] as const)
      expect([
        wrong,
        graded(0, 1, (x, y) => (y === 0 && x >= 0 && x < wrong ? 1 : null)).fixedPattern.grade,
      ]).toEqual([wrong, grade])
  })

  it('that is stretched is told by how much', () => {
    expect(gradeArtwork(symbol, bitmap(0, 1), QUIET, 1.06).axial.grade).toBe('A')
    expect(gradeArtwork(symbol, bitmap(0, 1), QUIET, 1.12).axial.grade).toBe('D')
    expect(gradeArtwork(symbol, bitmap(0, 1), QUIET, 1 / 1.14).axial.grade).toBe('F')
  })

  it('of one colour is no symbol', () => {
    expect(graded(0.5, 0.5).overall).toBe('F')
  })

  it('as it is drawn is measured as it was meant, at every level and version', () => {
    fc.assert(
      fc.property(fc.constantFrom(...LEVELS), fc.integer({ min: 1, max: 10 }), (level, version) => {
        const each = encode('4711', level, version)
        const scene = styledScene(each, PLAIN_LOOK, 30, '', '', {
          text: () => ({ width: 0, outlines: [] }),
          pictureSize: () => null,
        })
        const pixels = sceneColours(scene, 5)
        const grid = { x: QUIET * 5, y: QUIET * 5, module: 5, quiet: QUIET }
        const grades = gradeArtwork(each, moduleReflectances(pixels, each.side, grid), QUIET)
        expect([grades.overall, grades.contrast.value, grades.correction.value]).toEqual(['A', 1, 1])
      }),
      { numRuns: 20 },
    )
  })
})

describe('colours', () => {
  // WCAG 2.2: black on white 21:1, #767676 on white 4.54:1.
  it('have the contrast of WCAG 2.2', () => {
    expect(contrastRatio('#000000', '#ffffff')).toBeCloseTo(21, 9)
    expect(contrastRatio('#ffffff', '#767676')).toBeCloseTo(4.54, 2)
    expect(reflectance(255, 255, 255)).toBeCloseTo(1, 9)
  })
})
