import { describe, expect, it } from 'vitest'
import {
  encode,
  densityGain,
  gainPhrase,
  LEVELS,
  modeOf,
  RECOVERY,
  SymbolTooLong,
  type Level,
} from './index.ts'

/** ISO/IEC 18004, from memory: the longest text a version holds at a level. Confirmed by encoding one sign more. */
const ALPHANUMERIC: [version: number, level: Level, signs: number][] = [
  [1, 'L', 25],
  [1, 'M', 20],
  [1, 'Q', 16],
  [1, 'H', 10],
  [2, 'M', 38],
  [3, 'M', 61],
  [4, 'M', 90],
  [5, 'M', 122],
  [40, 'L', 4296],
]
const BYTES: typeof ALPHANUMERIC = [
  [2, 'M', 26],
  [3, 'M', 42],
  [4, 'M', 62],
  [5, 'M', 84],
  [40, 'L', 2953],
]
const NUMERIC: typeof ALPHANUMERIC = [[40, 'L', 7089]]

describe.each([
  ['alphanumeric', ALPHANUMERIC, 'A'],
  ['byte', BYTES, 'a'],
  ['numeric', NUMERIC, '7'],
] as const)('capacity in %s mode', (mode, table, sign) => {
  it.each(table)('version %i at level %s holds %i signs and no more', (version, level, signs) => {
    expect(encode(sign.repeat(signs), level)).toMatchObject({ version, segments: [{ mode }] })
    if (version < 40) expect(encode(sign.repeat(signs + 1), level).version).toBe(version + 1)
    else expect(() => encode(sign.repeat(signs + 1), level)).toThrow(SymbolTooLong)
  })
})

describe('a symbol', () => {
  it('has 17 + 4 · version modules a side (ISO/IEC 18004)', () => {
    for (let version = 1; version <= 40; version++)
      expect(encode('A', 'L', version).side).toBe(17 + 4 * version)
  })

  it('has its three finder patterns and no fourth', () => {
    const { modules, side } = encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'M')
    const finder = (x: number, y: number) =>
      [0, 1, 2, 3, 4, 5, 6].every(
        (i) =>
          modules[y]?.[x + i] && modules[y + 6]?.[x + i] && modules[y + i]?.[x] && modules[y + i]?.[x + 6],
      ) &&
      modules[y + 3]?.[x + 3] &&
      !modules[y + 1]?.[x + 1]
    expect([finder(0, 0), finder(side - 7, 0), finder(0, side - 7), finder(side - 7, side - 7)]).toEqual([
      true,
      true,
      true,
      false,
    ])
  })

  it('counts characters beyond ASCII in UTF-8 bytes', () => {
    expect(encode('ü'.repeat(13), 'M').version).toBe(2)
    expect(encode('ü'.repeat(14), 'M').version).toBe(3)
  })

  it.each([
    ['0123456789', 'numeric'],
    ['HTTPS://A.EXAMPLE/X-1', 'alphanumeric'],
    ['AZ 09$%*+-./:', 'alphanumeric'],
    ['https://a', 'byte'],
    ['A?', 'byte'],
    ['Ä', 'byte'],
  ])('carries %j in %s mode', (text, mode) => {
    expect(modeOf(text)).toBe(mode)
  })

  it('recovers about 7, 15, 25 and 30 % (ISO/IEC 18004)', () => {
    expect(LEVELS.map((level) => RECOVERY[level])).toEqual([0.07, 0.15, 0.25, 0.3])
  })
})

describe('the gain of a short link', () => {
  const long = `https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26#today`
  it('is told in modules', () => {
    const told = densityGain('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', long, 'M')
    expect(told).toEqual({ short: 25, long: encode(long, 'M').side })
    expect(gainPhrase(told)).toBe(`25 × 25 instead of ${String(told.long)} × ${String(told.long)} modules`)
  })
  it('stands where the long address fits no symbol', () => {
    const told = densityGain(
      'HTTPS://GO.SALTMARSH.EXAMPLE/PIER',
      `https://saltmarsh.example/${'x'.repeat(2000)}`,
      'H',
    )
    expect(told.long).toBeNull()
    expect(gainPhrase(told)).toContain('no symbol at all')
  })
})
