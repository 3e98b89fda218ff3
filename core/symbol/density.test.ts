import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  densities,
  encode,
  LEVELS,
  MODULE_MM_MIN,
  sizeWarning,
  smallestVersion,
  SymbolTooLong,
} from './index.ts'

describe('how dense a symbol is', () => {
  it('is worked out as it is drawn, for every kind of text and level', () => {
    const text = fc.oneof(
      fc.string({ minLength: 1, maxLength: 300 }),
      fc.string({
        unit: fc.constantFrom(...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:'),
        minLength: 1,
        maxLength: 400,
      }),
      fc.string({ unit: fc.constantFrom(...'0123456789'), minLength: 1, maxLength: 400 }),
    )
    fc.assert(
      fc.property(text, fc.constantFrom(...LEVELS), (content, level) => {
        let drawn: number | null
        try {
          drawn = encode(content, level).version
        } catch (error) {
          if (!(error instanceof SymbolTooLong)) throw error
          drawn = null
        }
        expect(smallestVersion(content, level)).toBe(drawn)
      }),
      { numRuns: 60 },
    )
  })

  // ISO/IEC 18004:2015, table 7: characters a version holds at a level, as remembered; byte, alphanumeric and numeric.
  it.each([
    ['a'.repeat(14), 'M', 1],
    ['a'.repeat(15), 'M', 2],
    ['A'.repeat(20), 'M', 1],
    ['A'.repeat(21), 'M', 2],
    ['1'.repeat(34), 'M', 1],
    ['1'.repeat(35), 'M', 2],
    ['a'.repeat(2953), 'L', 40],
    ['a'.repeat(2954), 'L', null],
    ['A'.repeat(4296), 'L', 40],
    ['1'.repeat(7089), 'L', 40],
    ['a'.repeat(1273), 'H', 40],
  ] as const)('%s at %s', (text, level, version) => {
    expect(smallestVersion(text, level)).toBe(version)
  })

  it('is less the shorter the text and the better its mode', () => {
    const { long, mixedCase, upperCase } = densities(
      'https://saltmarsh.example/timetable?utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26',
      'https://go.saltmarsh.example/ABC234',
      'M',
      30,
    )
    expect([long?.side, mixedCase?.side, upperCase?.side]).toEqual([41, 29, 25])
    expect((upperCase?.moduleMm ?? 0) * (25 + 8)).toBeCloseTo(30, 9)
  })

  it('is told where it is too much for the size, or the size for the distance', () => {
    const link = 'HTTPS://GO.SALTMARSH.EXAMPLE/ABC234'
    expect(sizeWarning(link, 'M', 30, 0.3)).toBeNull()
    const warning = sizeWarning(link, 'M', 12, null)
    const least = Number(/Print it (\d+) mm/.exec(warning ?? '')?.[1])
    expect(sizeWarning(link, 'M', least, null)).toBeNull()
    expect(sizeWarning(link, 'M', least - 1, null)).toContain(String(MODULE_MM_MIN))
    expect(sizeWarning(link, 'M', 30, 2)).toContain('Print it 200 mm or wider')
    expect(sizeWarning(link, 'M', 200, 2)).toBeNull()
  })
})
