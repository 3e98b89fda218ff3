import { readUrl } from '../api/index.ts'

const LONGEST = 400
const STARS_MAX = 8

/** A pattern as it is compared: without scheme, in the form the WHATWG URL Standard gives hosts and paths. */
const withoutScheme = (pattern: string) => pattern.trim().replace(/^https?:\/\//i, '')

/** What is wrong with a pattern of addresses, in a sentence; null where nothing is. */
export function patternFault(pattern: string): string | null {
  const text = withoutScheme(pattern)
  if (text === '') return 'Give the address that is reached, such as /order/thanks.'
  if (text.length > LONGEST) return `Make the address no longer than ${String(LONGEST)} characters.`
  if (/[\s#]/.test(text)) return 'Leave spaces and # out of the address.'
  if (text.split('*').length - 1 > STARS_MAX)
    return `Use at most ${String(STARS_MAX)} asterisks in one address.`
  return text.startsWith('/') || text.includes('/') || text.startsWith('*')
    ? null
    : 'Begin with / for any host, or write host and path, such as shop.example/thanks.'
}

/**
 * Whether an address is meant by a pattern: a path such as `/order/thanks`, perhaps with a host before it, in which `*`
 * stands for any text. A slash at the end makes no difference, nor do upper and lower case of a host. What stands behind
 * `?` is compared only where the pattern has a `?` too.
 *
 * Compared piece by piece from left to right, so that no pattern takes long.
 *
 * @param address as the WHATWG URL Standard writes it
 */
export function matchesAddress(pattern: string, address: string): boolean {
  const url = readUrl(address)
  if (!url) return false
  const wanted = withoutScheme(pattern)
  const [path = '', ...query] = wanted.split('?')
  const hasHost = !path.startsWith('/')
  const slash = path.indexOf('/')
  const of = hasHost && slash > 0 ? path.slice(0, slash).toLowerCase() + path.slice(slash) : path
  const there = `${hasHost ? url.host : ''}${url.pathname}`
  if (!matchesText(of, there) && !matchesText(withoutEndSlash(of), withoutEndSlash(there))) return false
  return query.length === 0 || matchesText(query.join('?'), url.search.slice(1))
}

const withoutEndSlash = (path: string) => (path.endsWith('/') ? path.slice(0, -1) : path)

/** Whether a text is a pattern in which `*` stands for any text, also for none. */
function matchesText(pattern: string, text: string): boolean {
  const [first = '', ...others] = pattern.split('*')
  const last = others.pop()
  if (last === undefined) return text === first
  if (!text.startsWith(first) || text.length < first.length + last.length) return false
  let at = first.length
  for (const piece of others) {
    const found = text.indexOf(piece, at)
    if (found < 0) return false
    at = found + piece.length
  }
  return text.endsWith(last) && text.length - last.length >= at
}
