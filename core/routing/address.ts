import { UTM_FIELDS, utmName, utmPairs, type UtmField, type UtmValues } from './utm.ts'

/** One `name=value` of a query, kept as it was written and with its decoded name. */
interface Pair {
  readonly raw: string
  readonly name: string
}

/** Decodes as application/x-www-form-urlencoded does (WHATWG URL Standard, section 5.1). */
function nameOf(raw: string): string {
  for (const name of new URLSearchParams(raw).keys()) return name
  return ''
}

function pairsOf(query: string): Pair[] {
  return query
    .split('&')
    .filter((raw) => raw !== '')
    .map((raw) => ({ raw, name: nameOf(raw) }))
}

/** A UTM value of the code that took the place of one the destination already had. */
export interface UtmClash {
  readonly field: UtmField
  readonly replaced: string
  readonly by: string
}

/**
 * A destination made ready for many scans: parsed once, its own UTM values that the code overrules
 * taken out, the code's put in.
 */
export interface Tagged {
  /** The address where a scan brings no query of its own. */
  readonly address: string
  /** Which of the destination's own UTM values the code's took the place of. */
  readonly clashes: readonly UtmClash[]
  /** The same address with the query values a scan came with (without the leading `?`) carried over. */
  readonly carrying: (query: string) => string
}

function assemble(base: string, pairs: readonly string[], fragment: string): string {
  return base + (pairs.length > 0 ? `?${pairs.join('&')}` : '') + fragment
}

/**
 * Tags a destination. Its own query stays as it was written, byte for byte, and its fragment too; the
 * code's UTM values are appended in the application/x-www-form-urlencoded form of the WHATWG URL
 * Standard and win over equal names in the destination. Names are compared decoded and case matters.
 *
 * Query values a scan came with are carried over after the destination's own, unless the destination
 * or the code already sets that name: a visitor cannot change what the manager wrote.
 *
 * @param destination an absolute http(s) address; its serialisation is the WHATWG one
 */
export function tag(destination: URL, utm: UtmValues): Tagged {
  const { href, search, hash } = destination
  const fragment = hash || (href.endsWith('#') ? '#' : '')
  const base = href.slice(0, href.length - fragment.length).split('?', 1)[0] ?? href
  const tags = utmPairs(utm)
  const taken = new Set(tags.map(([name]) => name))
  const own = pairsOf(search.slice(1))
  const kept = own.filter((pair) => !taken.has(pair.name))
  const keptRaw = kept.map((pair) => pair.raw)
  const tagsRaw = tags.map((pair) => new URLSearchParams([pair]).toString())
  const closed = new Set([...taken, ...kept.map((pair) => pair.name)])

  return {
    address: assemble(base, [...keptRaw, ...tagsRaw], fragment),
    clashes: clashesOf(own, utm),
    carrying(query) {
      const carried = pairsOf(sanitised(query)).filter((pair) => !closed.has(pair.name))
      return assemble(base, [...keptRaw, ...carried.map((pair) => pair.raw), ...tagsRaw], fragment)
    },
  }
}

/** A query as the WHATWG URL parser would write it: what may not stand in one is percent-encoded. */
function sanitised(query: string): string {
  const url = new URL('http://x.invalid/')
  url.search = query
  return url.search.slice(1)
}

function clashesOf(own: readonly Pair[], utm: UtmValues): UtmClash[] {
  return UTM_FIELDS.filter((field) => utm[field] !== '').flatMap((field) => {
    const pair = own.find((p) => p.name === utmName(field))
    if (!pair) return []
    const replaced = new URLSearchParams(pair.raw).get(pair.name) ?? ''
    return replaced === utm[field] ? [] : [{ field, replaced, by: utm[field] }]
  })
}
