/** One language a reader takes, by RFC 9110, section 12.4.2: a weight from 0.001 to 1. */
export interface LanguageRange {
  readonly tag: string
  readonly weight: number
}

function canonical(tag: string): string | null {
  try {
    return Intl.getCanonicalLocales(tag)[0] ?? null
  } catch {
    return null
  }
}

/** A language tag in its canonical spelling (RFC 5646, section 4.5), so that `EN` and `en` are one; what is no tag stays as it is. */
export function canonicalTag(tag: string): string {
  return canonical(tag) ?? tag
}

/**
 * Reads `Accept-Language` (RFC 9110, section 12.5.4) into BCP 47 tags in canonical spelling, the
 * heaviest first and equals in the order they were sent. `*`, weight 0 and what is no tag are left out.
 */
export function acceptedLanguages(header: string): LanguageRange[] {
  return header
    .slice(0, 1000)
    .split(',')
    .flatMap((item) => {
      const [range = '', ...parameters] = item.split(';').map((part) => part.trim())
      const weight = parameters
        .map((p) => /^q=(0(?:\.\d{0,3})?|1(?:\.0{0,3})?)$/i.exec(p)?.[1])
        .find((q) => q !== undefined)
      const tag = range === '*' || range === '' ? null : canonical(range)
      return tag === null ? [] : [{ tag, weight: weight === undefined ? 1 : Number(weight) }]
    })
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight)
}

/** The language a reader likes best, in canonical spelling ("de-AT"); empty where none is named. */
export function preferredLanguage(header: string): string {
  return acceptedLanguages(header)[0]?.tag.slice(0, 35) ?? ''
}

/** The primary subtag of a language tag: "de" of "de-AT" (BCP 47). */
export function primaryLanguage(tag: string): string {
  return tag.split('-', 1)[0] ?? ''
}
