import { describe, expect, it } from 'vitest'
import { fill, LANGUAGES, OWN_PAGES, secondsIn, wordsFor, type Words } from './index.ts'

const all = Object.entries<Words>(LANGUAGES)
/** Every sentence of a language, with where it stands. */
const sentences = (words: Words): [where: string, sentence: string][] => {
  const { pages, ...rest } = words
  return Object.entries({ ...pages, ...rest }).flatMap(([part, own]) =>
    Object.entries(own as unknown as Record<string, string>).map(([name, sentence]): [string, string] => [
      `${part}.${name}`,
      sentence,
    ]),
  )
}
const roomsIn = (sentence: string) => sentence.match(/\{\w+\}/g) ?? []
/** The script that most of a language's letters are of (Unicode, property Script). */
const SCRIPT: Readonly<Record<string, RegExp>> = {
  ar: /\p{Script=Arabic}/gu,
  bg: /\p{Script=Cyrillic}/gu,
  el: /\p{Script=Greek}/gu,
  he: /\p{Script=Hebrew}/gu,
  uk: /\p{Script=Cyrillic}/gu,
}

describe('what Flimbo says to visitors', () => {
  it('is said in at least 24 languages, by tags that are their canonical ones', () => {
    expect(all.length).toBeGreaterThanOrEqual(24)
    for (const [tag] of all) expect(Intl.getCanonicalLocales(tag)).toEqual([tag])
  })

  it.each(all)(
    'in %s, leaves the same room for the same things, and has no sentence of English left over',
    (tag, words) => {
      const english = new Map(sentences(LANGUAGES.en))
      for (const [where, sentence] of sentences(words)) {
        expect([where, roomsIn(sentence)]).toEqual([where, roomsIn(english.get(where) ?? '')])
        expect(sentence).toBe(sentence.trim())
        expect(sentence).not.toMatch(/[<>&"|]|\s{2}/)
        if (tag !== 'en' && sentence.length > 20) expect(sentence).not.toBe(english.get(where))
      }
      expect(Object.keys(words.pages)).toEqual([...OWN_PAGES])
    },
  )

  it.each(all)('in %s, is written in its own letters', (tag, words) => {
    const text = sentences(words)
      .map(([, sentence]) => sentence.replace(/\{\w+\}/g, ''))
      .join('')
    const letters = text.match(/\p{L}/gu)?.length ?? 0
    const own = text.match(SCRIPT[tag] ?? /\p{Script=Latin}/gu)?.length ?? 0
    expect(own).toBe(letters)
  })

  // RFC 4647, section 3.4: a range is cut back from its end until it fits.
  it.each([
    [['de-CH-1996', 'fr'], 'de', 'ltr'],
    [['zh-Hant-CN-x-private1', 'pt-BR'], 'pt', 'ltr'],
    [['no'], 'nb', 'ltr'],
    [['he-IL'], 'he', 'rtl'],
    [['tlh'], 'en', 'ltr'],
    [[], 'en', 'ltr'],
  ])('is for a reader of %j in %s, written %s', (tags, language, direction) => {
    expect(wordsFor(tags)).toMatchObject({ language, direction, words: LANGUAGES[language as 'en'] })
  })

  it('fills in what room was left for, and leaves alone what it does not know', () => {
    expect(fill('On to {host} in {time}', { host: 'a.example' })).toBe('On to a.example in {time}')
    // Nothing that is filled in is filled in turn.
    expect(fill('{host}{time}', { host: '{time}', time: 'x' })).toBe('{time}x')
  })

  // Common Locale Data Repository, units, as the runtime has it.
  it.each([
    ['en', 1, '1 sec'],
    ['en', 30, '30 sec'],
    ['de', 2, '2 Sek.'],
    ['fr', 2, '2 s'],
  ] as const)('writes seconds in %s: %i', (language, seconds, written) => {
    expect(secondsIn(language, seconds).replace(/\s/g, ' ')).toBe(written)
  })
})
