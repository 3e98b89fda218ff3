import { lookUp } from '../conditions/index.ts'
import { ar } from './languages/ar.ts'
import { bg } from './languages/bg.ts'
import { ca } from './languages/ca.ts'
import { cs } from './languages/cs.ts'
import { da } from './languages/da.ts'
import { de } from './languages/de.ts'
import { el } from './languages/el.ts'
import { en } from './languages/en.ts'
import { es } from './languages/es.ts'
import { et } from './languages/et.ts'
import { fi } from './languages/fi.ts'
import { fr } from './languages/fr.ts'
import { he } from './languages/he.ts'
import { hr } from './languages/hr.ts'
import { hu } from './languages/hu.ts'
import { it } from './languages/it.ts'
import { lt } from './languages/lt.ts'
import { lv } from './languages/lv.ts'
import { nb } from './languages/nb.ts'
import { nl } from './languages/nl.ts'
import { pl } from './languages/pl.ts'
import { pt } from './languages/pt.ts'
import { ro } from './languages/ro.ts'
import { sk } from './languages/sk.ts'
import { sl } from './languages/sl.ts'
import { sv } from './languages/sv.ts'
import { tr } from './languages/tr.ts'
import { uk } from './languages/uk.ts'
import type { Words } from './words.ts'

/** Every language that visitors are spoken to in, by its tag (BCP 47). */
export const LANGUAGES = {
  ar,
  bg,
  ca,
  cs,
  da,
  de,
  el,
  en,
  es,
  et,
  fi,
  fr,
  he,
  hr,
  hu,
  it,
  lt,
  lv,
  nb,
  nl,
  pl,
  pt,
  ro,
  sk,
  sl,
  sv,
  tr,
  uk,
} as const satisfies Record<string, Words>
export type Language = keyof typeof LANGUAGES

/** Tags that stand for a language here: the macrolanguage of Norwegian, and its other written form. */
const ALSO: Readonly<Record<string, Language>> = { no: 'nb', nn: 'nb' }
const TAGS = [...Object.keys(LANGUAGES), ...Object.keys(ALSO)]
/** Languages, and scripts, that are written from the right (Unicode CLDR). */
const FROM_THE_RIGHT = ['ar', 'he', 'fa', 'ur', 'ps', 'sd', 'ug', 'yi', 'dv', 'ckb']
const SCRIPTS_FROM_THE_RIGHT = /^[a-z]{2,3}-(arab|hebr|thaa|syrc|nkoo|adlm)\b/i

/** Whether a language, by its tag (BCP 47), is written from the right. */
export function isRightToLeft(tag: string): boolean {
  if (SCRIPTS_FROM_THE_RIGHT.test(tag)) return true
  return FROM_THE_RIGHT.includes(tag.split('-')[0]?.toLowerCase() ?? '') && !/^[a-z]{2,3}-latn\b/i.test(tag)
}

export interface Spoken {
  readonly language: Language
  readonly direction: 'ltr' | 'rtl'
  readonly words: Words
}

/**
 * The words of the language that a reader likes best of those there are: lookup of RFC 4647, section 3.4; English where
 * none is.
 *
 * @param tags what the reader takes, the dearest first, as `acceptedLanguages` gives them
 */
export function wordsFor(tags: readonly string[]): Spoken {
  const tag = lookUp(tags, TAGS) ?? 'en'
  // One of the tags above.
  const language = ALSO[tag] ?? (tag as Language)
  return {
    language,
    direction: isRightToLeft(language) ? 'rtl' : 'ltr',
    words: LANGUAGES[language],
  }
}

/** A sentence with what it leaves room for: `{host}` and the like. */
export function fill(sentence: string, values: Readonly<Record<string, string>>): string {
  return sentence.replace(/\{(\w+)\}/g, (whole, name: string) => values[name] ?? whole)
}

/** A time in seconds as a language writes it, in short: plural forms and all are the runtime's (CLDR). */
export function secondsIn(language: Language, seconds: number): string {
  return new Intl.NumberFormat(language, { style: 'unit', unit: 'second', unitDisplay: 'short' }).format(
    seconds,
  )
}
