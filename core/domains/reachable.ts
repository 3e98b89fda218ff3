import { readUrl } from '../api/index.ts'

/** Ranges of IPv4 that no phone on the internet reaches (IANA IPv4 Special-Purpose Address Registry). */
const PRIVATE_V4 =
  /^(0|10|127|169\.254|192\.168|172\.(1[6-9]|2\d|3[01])|100\.(6[4-9]|[7-9]\d|1[01]\d|12[0-7])|198\.1[89])\./
/** Loopback, unique local and link-local addresses of IPv6 (IANA IPv6 Special-Purpose Address Registry). */
const PRIVATE_V6 = /^\[(::1?\]|f[cd]|fe[89ab])/i
/** Names that never resolve on the internet (RFC 6761, RFC 6762, RFC 8375, RFC 9476). */
const LOCAL_NAMES = /(^|\.)(localhost|local|internal|home\.arpa|lan|test|invalid|alt)$/i

/**
 * Why phones cannot reach short links at an origin, in a sentence; null where nothing speaks against it. What is
 * printed under such an address leads nowhere for ever.
 */
export function unreachableByPhones(origin: string): string | null {
  const hostname = readUrl(origin)?.hostname.replace(/\.$/, '') ?? ''
  const isNumber = /^\d+(\.\d+){3}$/.test(hostname) || hostname.startsWith('[')
  const isPrivate = isNumber
    ? PRIVATE_V4.test(`${hostname}.`) || PRIVATE_V6.test(hostname)
    : LOCAL_NAMES.test(hostname) || !hostname.includes('.')
  if (!isPrivate) return null
  return `Phones cannot reach ${hostname === '' ? origin : hostname}: nothing printed with it will ever work. Set FLIMBO_DOOR_URL, or add a domain under Settings, before you print.`
}
