import { tagPairs, type ExtraValues, type UtmValues } from './utm.ts'

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

/** A value of the code that took the place of one the destination already had under the same name. */
export interface TagClash {
  readonly name: string
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
  /** Which of the destination's own values the code's took the place of. */
  readonly clashes: readonly TagClash[]
  /** The same address with the query values a scan came with (without the leading `?`) carried over. */
  readonly carrying: (query: string) => string
}

function assemble(base: string, pairs: readonly string[], fragment: string): string {
  return base + (pairs.length > 0 ? `?${pairs.join('&')}` : '') + fragment
}

/** An address before its query, and its fragment with the `#`, an empty one too. */
function partsOf({ href, hash }: URL): { base: string; fragment: string } {
  const fragment = hash || (href.endsWith('#') ? '#' : '')
  return { base: href.slice(0, href.length - fragment.length).split('?', 1)[0] ?? href, fragment }
}

/**
 * Tags a destination. Its own query stays as it was written, byte for byte, and its fragment too; the
 * code's UTM values, and then its values for the workspace's own parameters, are appended in the
 * application/x-www-form-urlencoded form of the WHATWG URL Standard and win over equal names in the
 * destination. Names are compared decoded and case matters.
 *
 * Query values a scan came with are carried over after the destination's own, unless the destination
 * or the code already sets that name: a visitor cannot change what the manager wrote. At most 2 kB are.
 *
 * @param destination an absolute http(s) address; its serialisation is the WHATWG one
 */
export function tag(destination: URL, utm: UtmValues, extra: ExtraValues = {}): Tagged {
  const { base, fragment } = partsOf(destination)
  const tags = tagPairs(utm, extra)
  const taken = new Set(tags.map(([name]) => name))
  const own = pairsOf(destination.search.slice(1))
  const kept = own.filter((pair) => !taken.has(pair.name))
  const keptRaw = kept.map((pair) => pair.raw)
  const tagsRaw = tags.map((pair) => new URLSearchParams([pair]).toString())
  const closed = new Set([...taken, ...kept.map((pair) => pair.name)])

  return {
    address: assemble(base, [...keptRaw, ...tagsRaw], fragment),
    clashes: clashesOf(own, tags),
    carrying(query) {
      const carried = pairsOf(sanitised(carriedPart(query))).filter((pair) => !closed.has(pair.name))
      return assemble(base, [...keptRaw, ...carried.map((pair) => pair.raw), ...tagsRaw], fragment)
    },
  }
}

/** So much of a query is carried on, in whole pairs: what is longer was not written by a manager or a phone. */
export const CARRIED_MAX = 2048

function carriedPart(query: string): string {
  if (query.length <= CARRIED_MAX) return query
  const end = query.lastIndexOf('&', CARRIED_MAX)
  return end < 0 ? '' : query.slice(0, end)
}

/** A query as the WHATWG URL parser would write it: what may not stand in one is percent-encoded. */
function sanitised(query: string): string {
  const url = new URL('http://x.invalid/')
  url.search = query
  return url.search.slice(1)
}

function clashesOf(own: readonly Pair[], tags: readonly [name: string, value: string][]): TagClash[] {
  return tags.flatMap(([name, by]) => {
    const pair = own.find((p) => p.name === name)
    if (!pair) return []
    const replaced = new URLSearchParams(pair.raw).get(pair.name) ?? ''
    return replaced === by ? [] : [{ name, replaced, by }]
  })
}

/** The parameters of a destination's own query that are tags: any `utm_…`, and the names given. In order, each once. */
export function tagsIn(destination: URL, names: readonly string[] = []): { name: string; value: string }[] {
  const seen = new Map<string, string>()
  for (const [name, value] of destination.searchParams) {
    if ((/^utm_/i.test(name) || names.includes(name)) && !seen.has(name)) seen.set(name, value)
  }
  return [...seen].map(([name, value]) => ({ name, value }))
}

/** A destination without some of its query's names; everything else stays as it was written, byte for byte. */
export function withoutNames(destination: URL, names: ReadonlySet<string>): string {
  const { base, fragment } = partsOf(destination)
  return assemble(
    base,
    pairsOf(destination.search.slice(1))
      .filter((pair) => !names.has(pair.name))
      .map((pair) => pair.raw),
    fragment,
  )
}
