import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  canonicalSlug,
  chosenSlug,
  isSlug,
  printedLink,
  RESERVED_SLUGS,
  shortLink,
  SLUG_SIGNS,
  slugOf,
  symbolFileName,
} from './index.ts'
import { modeOf } from '../symbol/index.ts'

describe('a slug', () => {
  it('is generated without look-alikes', () => {
    for (const sign of '01ILOUV') expect(SLUG_SIGNS).not.toContain(sign)
    expect(new Set(SLUG_SIGNS).size).toBe(SLUG_SIGNS.length)
  })

  it('is written from numbers, one sign each', () => {
    expect(slugOf([0, 1, 28])).toBe('23Z')
    expect(() => slugOf([29])).toThrow(RangeError)
  })

  it.each(['PIER', 'pier-2', '1A', 'a'.repeat(40)])('can be %s', (text) => {
    expect(isSlug(text)).toBe(true)
  })
  it.each(['', '-A', 'A-', 'A B', 'Ä', 'A_B', 'A/B', 'a'.repeat(41), 'A\n', 'ſ'])('cannot be %j', (text) => {
    expect(isSlug(text)).toBe(false)
  })

  it('is one and the same in any letter case', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9a-zA-Z]{1,40}$/), (text) => {
        expect(canonicalSlug(text.toLowerCase())).toBe(canonicalSlug(text.toUpperCase()))
      }),
    )
  })

  it.each([
    ['pi', 'at least 3'],
    ['p!er', 'only the letters'],
    ['x'.repeat(41), 'no longer than 40'],
    ['Health', 'kept for Flimbo'],
  ])('is refused as %j with a sentence', (typed, sentence) => {
    expect(chosenSlug.safeParse(typed).error?.issues[0]?.message).toContain(sentence)
  })

  it('is kept apart from Flimbo’s own paths, which are slugs themselves', () => {
    for (const reserved of RESERVED_SLUGS) expect(isSlug(reserved)).toBe(true)
  })
})

describe('a short link', () => {
  it('is read in the host’s own case and printed in upper case', () => {
    expect(shortLink('https://go.saltmarsh.example', 'pier')).toBe('https://go.saltmarsh.example/PIER')
    expect(printedLink('https://go.saltmarsh.example', 'pier')).toBe('HTTPS://GO.SALTMARSH.EXAMPLE/PIER')
  })

  it('is alphanumeric for every slug, and a browser reads the printed one as the same place', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9a-zA-Z]([0-9a-zA-Z-]{0,38}[0-9a-zA-Z])?$/), (slug) => {
        const printed = printedLink('http://go.saltmarsh.example:8080', slug)
        expect(modeOf(printed)).not.toBe('byte')
        expect(new URL(printed).href).toBe(shortLink('http://go.saltmarsh.example:8080', slug))
      }),
    )
  })
})

describe('the file name of a symbol', () => {
  it.each([
    ['Café coaster, Gull’s Rest', 'COASTER1', 'cafe-coaster-gull-s-rest-COASTER1.svg'],
    ['../../etc/passwd', 'X', 'etc-passwd-X.svg'],
    ['灯台', 'X', 'X.svg'],
  ])('of %j is plain', (name, slug, file) => {
    expect(symbolFileName({ name, slug }, 'svg')).toBe(file)
  })
})
