import { z } from 'zod'
import { lookUp } from '../conditions/index.ts'
import { canonicalTag } from '../scans/index.ts'

/** Something that each language of a page has its own of, by its tag (BCP 47). */
export type Localised<T> = Readonly<Record<string, T>>

export const LANGUAGES_MAX = 20

/** Whether a tag is one that languages can be asked for by: not every row of letters and digits is. */
function isWellFormed(tag: string): boolean {
  if (!/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/.test(tag)) return false
  try {
    return Intl.getCanonicalLocales(tag).length === 1
  } catch {
    return false
  }
}

/** A language as its tag (BCP 47), in canonical spelling. */
export const languageTag = z
  .string()
  .max(35)
  .refine(isWellFormed, 'Write a language as its tag (BCP 47): de or de-AT.')
  .transform(canonicalTag)

/** Values by language; one that a page does not have is left alone until it has it again. */
export function localised<T extends z.ZodType>(value: T) {
  return z
    .record(languageTag, value)
    .refine(
      (all) => Object.keys(all).length <= LANGUAGES_MAX,
      `Give at most ${String(LANGUAGES_MAX)} languages.`,
    )
}

/**
 * The languages in which something is looked for, the one that is wanted first: then one that is the same but for its
 * region or script, then all others as the page has them.
 *
 * @param languages those of the page, its own first
 */
export function fallbacks(wanted: string, languages: readonly string[]): string[] {
  const base = (tag: string) => tag.split('-')[0]
  const near = languages.filter((each) => each !== wanted && base(each) === base(wanted))
  return [...new Set([wanted, ...near, ...languages])]
}

/** What is said in the first of some languages that has it; null where none has. */
export function firstSaid<T>(
  value: Localised<T>,
  languages: readonly string[],
  isEmpty: (each: T) => boolean,
): { language: string; value: T } | null {
  for (const language of languages) {
    const there = value[language]
    if (there !== undefined && !isEmpty(there)) return { language, value: there }
  }
  return null
}

/**
 * The language that a visitor is shown a page in: what they chose on it, or else lookup by RFC 4647 among those it has,
 * or its own.
 *
 * @param tags what the visitor reads, the dearest first
 * @param languages those of the page, its own first; not empty
 */
export function languageFor(tags: readonly string[], languages: readonly string[], chosen = ''): string {
  if (languages.includes(chosen)) return chosen
  return lookUp(tags, languages) ?? languages[0] ?? 'en'
}
