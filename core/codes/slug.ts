import { z } from 'zod'

/** The signs of generated slugs: digits and upper-case letters without the look-alikes 0 O 1 I L U V. */
export const SLUG_SIGNS = '23456789ABCDEFGHJKMNPQRSTWXYZ'
export const SLUG_LENGTH = 6
/** How long a workspace may have its generated slugs. */
export const SLUG_LENGTHS = { min: 4, max: 12 } as const
export const SLUG_MAX = 40

/** Paths of the front door that are not short links. */
export const RESERVED_SLUGS: readonly string[] = ['ROBOTS-TXT', 'HEALTH', 'FAVICON-ICO', 'API', 'ASSETS']

/**
 * The one spelling of a slug that is stored, looked up and printed: upper case. Short links are
 * case-insensitive; only ASCII letters may stand in a slug, so no locale plays a part.
 */
export function canonicalSlug(slug: string): string {
  return slug.toUpperCase()
}

/** The slug that a short link ends with, however it was written: a whole link, its path, or the slug alone. */
export function slugIn(link: string): string {
  const text = link.trim().replace(/\/$/, '')
  return canonicalSlug(text.slice(text.lastIndexOf('/') + 1))
}

/** The slug that a path of the front door names, such as `/pier/`; what has more parts than one gives no slug. */
export function slugOfPath(path: string): string {
  return canonicalSlug(path.endsWith('/') ? path.slice(1, -1) : path.slice(1))
}

/** Whether a text can be a slug: `0-9 A-Z -` in any case, at most 40 signs, no dash at an end. */
export function isSlug(text: string): boolean {
  return text.length <= SLUG_MAX && /^[0-9a-z](?:[0-9a-z-]*[0-9a-z])?$/i.test(text)
}

/**
 * Writes numbers as a slug in the generated signs: each in [0, 29) gives one sign.
 * @throws RangeError when a number lies outside of that
 */
export function slugOf(numbers: readonly number[]): string {
  return numbers
    .map((n) => {
      const sign = SLUG_SIGNS[n]
      if (sign === undefined) throw new RangeError(`No slug sign for ${String(n)}`)
      return sign
    })
    .join('')
}

/** A slug a person chooses; stored in its canonical spelling. */
export const chosenSlug = z
  .string({ error: 'Give the end of the short link.' })
  .trim()
  .min(3, 'Give the short link at least 3 characters.')
  .max(SLUG_MAX, `Make the short link no longer than ${String(SLUG_MAX)} characters.`)
  .refine(
    isSlug,
    'Use only the letters A to Z, digits and dashes, with no dash at either end: capitals and small letters are the same.',
  )
  .transform(canonicalSlug)
  .refine(
    (slug) => !RESERVED_SLUGS.includes(slug),
    'This short link is kept for Flimbo itself. Choose another.',
  )

/** The short link as people read it. */
export function shortLink(door: string, slug: string): string {
  return `${door}/${canonicalSlug(slug)}`
}

/**
 * The short link as a symbol carries it: scheme and host in upper case too, so that every sign is in
 * the alphanumeric set of ISO/IEC 18004. Scheme and host are case-insensitive by RFC 3986, section 6.2.2.1.
 */
export function printedLink(door: string, slug: string): string {
  return shortLink(door, slug).toUpperCase()
}

const cut = (slug: string, room: number) => slug.slice(0, SLUG_MAX - room).replace(/-+$/, '')

/** Slugs like one that is taken, the likeliest first, for a person to choose from; not yet looked up. */
export function slugsLike(taken: string, year: number): string[] {
  const slug = canonicalSlug(taken)
  const short = String(year % 100).padStart(2, '0')
  const [, stem = slug, number] = /^(.*?)-?(\d{1,4})$/.exec(slug) ?? []
  const next =
    number === undefined ? [] : [1, 2, 3].map((step) => `${cut(stem, 5)}-${String(Number(number) + step)}`)
  return [
    ...next,
    ...[
      `${cut(slug, 2)}-2`,
      `${cut(slug, 3)}-${short}`,
      `${cut(slug, 2)}-3`,
      `${cut(slug, 2)}-A`,
      `${cut(slug, 2)}-B`,
    ],
  ].filter((each, i, all) => each !== slug && isSlug(each) && all.indexOf(each) === i)
}
