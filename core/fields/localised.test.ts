import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { fallbacks, languageFor } from './index.ts'
import { firstSaid, localised } from './localised.ts'

const tags = fc.uniqueArray(fc.constantFrom('de', 'de-AT', 'en', 'en-GB', 'fr', 'ar', 'zh-Hant'), {
  minLength: 1,
})
const isBlank = (text: string) => text === ''

describe('the language of a page', () => {
  // RFC 4647, section 3.4: a range is cut back from its end until it fits.
  it.each([
    [['de-AT', 'en'], ['en', 'de'], 'de'],
    [['fr'], ['en', 'de'], 'en'],
    [['zh-Hant-TW'], ['en', 'zh-Hant'], 'zh-Hant'],
    [[], ['nl', 'en'], 'nl'],
  ])('for a reader of %j among %j is %s', (reader, languages, expected) => {
    expect(languageFor(reader, languages)).toBe(expected)
  })

  it('is what the reader chose on it, where the page has that', () => {
    expect(languageFor(['de'], ['en', 'de'], 'en')).toBe('en')
    expect(languageFor(['de'], ['en', 'de'], 'fr')).toBe('de')
  })

  it('is always one that the page has', () => {
    fc.assert(
      fc.property(tags, tags, fc.string(), (reader, languages, chosen) => {
        expect(languages).toContain(languageFor(reader, languages, chosen))
      }),
    )
  })
})

describe('what a language lacks', () => {
  it('is looked for in the nearest, and then in all others as the page has them', () => {
    expect(fallbacks('de-AT', ['en', 'de-AT', 'fr', 'de'])).toEqual(['de-AT', 'de', 'en', 'fr'])
  })

  it('is found wherever any language of the page says it', () => {
    fc.assert(
      fc.property(
        tags,
        fc.dictionary(fc.constantFrom('de', 'en', 'fr', 'ar'), fc.constantFrom('', 'x')),
        (languages, said) => {
          const [wanted = 'en'] = languages
          const found = firstSaid(said, fallbacks(wanted, languages), isBlank)
          const anywhere = languages.some((tag) => (said[tag] ?? '') !== '')
          expect(found !== null).toBe(anywhere)
          if ((said[wanted] ?? '') !== '') expect(found?.language).toBe(wanted)
        },
      ),
    )
  })
})

describe('values by language', () => {
  const schema = localised(z.string())
  it('are kept under canonical tags', () => {
    expect(schema.parse({ 'DE-at': 'a', EN: 'b' })).toEqual({ 'de-AT': 'a', en: 'b' })
  })
  it.each([
    { 'not a tag!': 'a' },
    { 'de-a': 'a' },
    { 'aa-bbbbbbbb-x': 'a' },
    { '': 'a' },
    Object.fromEntries(Array.from({ length: 21 }, (_e, i) => [`x${String.fromCharCode(97 + i)}`, 'a'])),
  ])('are refused where they are by no language, or too many: %j', (given) => {
    expect(schema.safeParse(given).success).toBe(false)
  })
})
