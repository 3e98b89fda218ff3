import fc from 'fast-check'
import encodeQR from 'qr'
import { describe, expect, it } from 'vitest'
import { bitsOf, encode, LEVELS, modeOf, segmentsOf, type Mode, type Segment } from './index.ts'

const CLASSES = [0, 1, 2] as const
const MODES: readonly Mode[] = ['numeric', 'alphanumeric', 'byte']

/** Every way to part a text and to write its parts: what the search must not be beaten by. */
function everyWay(text: string): Segment[][] {
  const signs = [...text]
  if (signs.length === 0) return [[]]
  return signs.flatMap((_, i) => {
    const head = signs.slice(0, i + 1).join('')
    const able = MODES.slice(MODES.indexOf(modeOf(head)))
    return everyWay(signs.slice(i + 1).join('')).flatMap((rest) =>
      able.map((mode): Segment[] => [{ mode, text: head }, ...rest]),
    )
  })
}

const sign = fc.constantFrom('0', '7', 'A', 'Z', ':', '/', 'a', 'ü', '灯')

describe('the modes of a text', () => {
  it('are those of the shortest of all ways to write it, for every size of symbol', () => {
    fc.assert(
      fc.property(
        fc.array(sign, { minLength: 1, maxLength: 6 }),
        fc.constantFrom(...CLASSES),
        (signs, size) => {
          const text = signs.join('')
          const least = Math.min(...everyWay(text).map((way) => bitsOf(way, size) ?? Infinity))
          expect(bitsOf(segmentsOf(text, size), size)).toBe(least)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('carry all of the text, each part in a mode that can', () => {
    const part = fc.oneof(
      fc.string({ unit: fc.constantFrom(...'0123456789'), minLength: 1, maxLength: 30 }),
      fc.string({ unit: fc.constantFrom(...'ABCXYZ /:.-'), minLength: 1, maxLength: 30 }),
      fc.string({ minLength: 1, maxLength: 30, unit: 'grapheme' }),
    )
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 6 }),
        fc.constantFrom(...CLASSES),
        (parts, size) => {
          const text = parts.join('')
          const segments = segmentsOf(text, size)
          expect(segments.map((segment) => segment.text).join('')).toBe(text)
          for (const { mode, text: own } of segments)
            expect(MODES.indexOf(modeOf(own))).toBeLessThanOrEqual(MODES.indexOf(mode))
        },
      ),
    )
  })

  it('change where that pays, and not for a short run of digits', () => {
    const modes = (text: string) => segmentsOf(text, 0).map(({ mode }) => mode)
    expect(modes(`HTTPS://A.EXAMPLE/${'7'.repeat(20)}`)).toEqual(['alphanumeric', 'numeric'])
    expect(modes('HTTPS://A.EXAMPLE/777')).toEqual(['alphanumeric'])
    expect(modes(`https://a.example/${'7'.repeat(12)}`)).toEqual(['byte', 'numeric'])
  })

  it('make a smaller symbol than one mode does', () => {
    const ticket = `https://saltmarsh.example/ticket/${'4711'.repeat(10)}`
    const plain = encodeQR(ticket, 'raw', { ecc: 'medium', encoding: 'byte', border: 1 })
    expect(encode(ticket, 'M').side).toBeLessThan(plain.length - 2)
  })
})

describe('a text in one mode', () => {
  const LIBRARY = { L: 'low', M: 'medium', Q: 'quartile', H: 'high' } as const

  it('is drawn module for module as a general-purpose library draws it', () => {
    const text = fc.oneof(
      fc.string({ unit: fc.constantFrom(...'abcdefghij'), minLength: 1, maxLength: 400 }),
      fc.string({ unit: fc.constantFrom(...'ABCDEFGHIJ$%*'), minLength: 1, maxLength: 400 }),
      fc.string({ unit: fc.constantFrom(...'0123456789'), minLength: 1, maxLength: 400 }),
    )
    fc.assert(
      fc.property(text, fc.constantFrom(...LEVELS), (content, level) => {
        const options = { ecc: LIBRARY[level], encoding: modeOf(content), border: 1 }
        const reference = encodeQR(content, 'raw', options)
          .slice(1, -1)
          .map((row) => row.slice(1, -1))
        expect(encode(content, level).modules).toEqual(reference)
      }),
      { numRuns: 40 },
    )
  })

  it.each(LEVELS)('is so in every version at level %s', (level) => {
    for (let version = 1; version <= 40; version++) {
      const options = { ecc: LIBRARY[level], encoding: 'alphanumeric' as const, border: 1, version }
      const reference = encodeQR('HTTP://A/1', 'raw', options)
        .slice(1, -1)
        .map((row) => row.slice(1, -1))
      expect([version, encode('HTTP://A/1', level, version).modules]).toEqual([version, reference])
    }
  })
})
