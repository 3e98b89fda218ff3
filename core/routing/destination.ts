import { ADDRESS_MAX, hasControlCharacters, readUrl } from '../api/index.ts'
import { hasPlaceholderInHost } from './placeholders.ts'

export type DestinationFault =
  | 'empty'
  | 'too-long'
  | 'control-characters'
  | 'not-an-address'
  | 'not-http'
  | 'no-host'
  | 'placeholder-host'
  | 'front-door'

const SENTENCES: Record<DestinationFault, string> = {
  empty: 'Give the address this leads to.',
  'too-long': `Make the address no longer than ${String(ADDRESS_MAX)} characters.`,
  'control-characters': 'Take line breaks, tabs and other control characters out of the address.',
  'not-an-address': 'This is not a whole web address. Write it as https://example.com/page.',
  'not-http': 'Phones can only be sent to a web page: begin the address with https:// or http://.',
  'no-host': 'The address names no site. Write it as https://example.com/page.',
  'placeholder-host':
    'A placeholder may stand in the path, the query or after #, but not in the name of the site.',
  'front-door':
    'This address points back at Flimbo’s own short links and would go in a circle. Give the page it should lead to.',
}

export type DestinationReading =
  /** `text` is the address as it is kept: as it was typed, with `https://` where that was left out (`assumed`). */
  | { ok: true; url: URL; text: string; assumed: boolean }
  | { ok: false; fault: DestinationFault; sentence: string }

function refused(fault: DestinationFault): DestinationReading {
  return { ok: false, fault, sentence: SENTENCES[fault] }
}

/** Names and addresses of the machine itself (RFC 6761; the WHATWG parser writes IPv6 in its shortest form). */
const LOOPBACK = /^((.*\.)?localhost|127(\.\d+){3}|0\.0\.0\.0|\[::1?\])$/
/** IPv4 within IPv6: mapped (RFC 4291, section 2.5.5.2), and the older form without the mark. */
const V4_WITHIN = /^\[::(?:ffff:)?([0-9a-f]{1,4}):([0-9a-f]{1,4})\]$/

/** The host that an address means, in one spelling. */
function hostOf({ hostname }: URL): string {
  const [, high, low] = V4_WITHIN.exec(hostname) ?? []
  const bytes =
    high === undefined || low === undefined
      ? null
      : [high, low].flatMap((word) => [parseInt(word, 16) >> 8, parseInt(word, 16) & 255])
  const host = bytes?.join('.') ?? hostname.replace(/\.$/, '')
  return LOOPBACK.test(host) ? 'localhost' : host
}

/** Host and port as the WHATWG URL Standard compares them, with the scheme's default port filled in. */
function place(url: URL): string {
  return `${hostOf(url)}:${url.port || (url.protocol === 'https:' ? '443' : '80')}`
}

/** Whether an address leads to one of the given origins; every loopback name is one and the same host. */
export function leadsTo(url: URL, origins: readonly string[]): boolean {
  return origins.some((origin) => place(new URL(origin)) === place(url))
}

/** Whether a text is the name of a site, with what may follow it, and only begins with no scheme: `shop.example/sale`. */
function lacksOnlyScheme(text: string): boolean {
  return /^(?![a-z][a-z0-9+-]*:(?!\d+(?:[/?#]|$)))[^\s/?#:@\\.][^\s/?#:@\\]*\.[\p{L}][^\s/?#:@\\]*(:\d+)?([/?#]\S*)?$/iu.test(
    text,
  )
}

/**
 * Reads a destination as a person typed it: an absolute http(s) address with a host, parsed by the
 * WHATWG URL Standard; `https://` is put before the name of a site that stands alone; at most 2,048 characters,
 * free of control characters (which that parser would drop silently), and not one of `doors`, the origins of the
 * front door.
 */
export function readDestination(typed: string, doors: readonly string[] = []): DestinationReading {
  const trimmed = typed.trim()
  const assumed = lacksOnlyScheme(trimmed)
  const text = assumed ? `https://${trimmed}` : trimmed
  if (text === '') return refused('empty')
  if (hasControlCharacters(text)) return refused('control-characters')
  if (text.length > ADDRESS_MAX) return refused('too-long')
  const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(text)?.[1]?.toLowerCase()
  const isHttp = scheme === 'http' || scheme === 'https'
  // "saltmarsh.example:8080/x" reads as a scheme too; only a scheme without a dot is surely one.
  if (scheme && !isHttp && !scheme.includes('.') && !/^localhost$/.test(scheme)) return refused('not-http')
  if (!isHttp) return refused('not-an-address')
  if (!/^https?:\/\/[^/?#\\]/i.test(text)) return refused('no-host')
  if (hasPlaceholderInHost(text)) return refused('placeholder-host')
  const url = readUrl(text)
  if (!url) return refused('not-an-address')
  if (url.hostname === '') return refused('no-host')
  return leadsTo(url, doors) ? refused('front-door') : { ok: true, url, text, assumed }
}
