import type { IncomingMessage } from 'node:http'
import { readUrl } from '@flimbo/core/api'
import { CHECK_LIMITS, type Ending, type Hop } from '@flimbo/core/checks'
import { ForbiddenAddress, requestTo, type Reach } from '../reach/index.ts'

/** How a destination is followed. */
export interface Following extends Reach {
  readonly limits?: { readonly hops: number; readonly bytes: number; readonly ms: number }
}

export interface Followed {
  readonly hops: Hop[]
  readonly ending: Ending
  readonly ms: number
}

const REDIRECTS = new Set([301, 302, 303, 307, 308])
const HEADERS = {
  'User-Agent': 'Flimbo destination check',
  Accept: 'text/html,*/*;q=0.8',
  'Accept-Encoding': 'identity',
} as const

/** Asks for one address and reads no more of the answer than is allowed. */
function get(
  url: URL,
  cookies: string,
  reach: Reach,
  signal: AbortSignal,
  bytesMax: number,
): Promise<IncomingMessage> {
  const headers = { ...HEADERS, ...(cookies === '' ? {} : { Cookie: cookies }) }
  return new Promise((resolve, reject) => {
    const asking = requestTo(
      url,
      reach,
      { method: 'GET', signal, maxHeaderSize: 32_768, headers },
      (response) => {
        let bytes = 0
        const enough = () => {
          response.destroy()
          resolve(response)
        }
        response.on('data', (part: Buffer) => {
          bytes += part.length
          if (bytes >= bytesMax) enough()
        })
        response.on('end', () => {
          resolve(response)
        })
        response.on('error', (error) => {
          if (bytes < bytesMax) reject(error)
        })
        // A redirect's own body says nothing.
        if (REDIRECTS.has(response.statusCode ?? 0)) enough()
      },
    )
    asking.on('error', reject)
    asking.end()
  })
}

function endingOf(error: unknown, signal: AbortSignal): Ending {
  if (signal.aborted) return { kind: 'too-slow' }
  if (error instanceof ForbiddenAddress) return { kind: 'forbidden-address' }
  const code = String((error as { code?: unknown }).code)
  return { kind: /CERT|SELF_SIGNED|UNABLE_TO_|ALTNAME|SSL|TLS/.test(code) ? 'insecure' : 'unreachable' }
}

/** Cookies a site sets on the way, as a phone would give them back to it: by host, without lifetimes. */
function cookieJar() {
  const jar = new Map<string, Map<string, string>>()
  return {
    of: (url: URL) => [...(jar.get(url.host) ?? [])].map(([name, value]) => `${name}=${value}`).join('; '),
    keep(url: URL, response: IncomingMessage) {
      for (const line of response.headers['set-cookie'] ?? []) {
        const [, name, value = ''] = /^\s*([^=;\s]+)=([^;]*)/.exec(line) ?? []
        if (name === undefined) continue
        const own = jar.get(url.host) ?? new Map<string, string>()
        jar.set(url.host, own.set(name, value))
      }
    },
  }
}

/** Follows an address as a browser's navigation would (WHATWG Fetch Standard, HTTP-redirect fetch): GET, within limits on hops, bytes and time. */
export async function follow(address: string, reach: Following): Promise<Followed> {
  const limits = reach.limits ?? CHECK_LIMITS
  const began = performance.now()
  const signal = AbortSignal.timeout(limits.ms)
  const since = (from: number) => Math.round(performance.now() - from)
  const hops: Hop[] = []
  const seen = new Set<string>()
  const cookies = cookieJar()
  const ended = (kind: Ending['kind']): Followed => ({ hops, ending: { kind }, ms: since(began) })

  let url = new URL(address)
  for (;;) {
    const sent = cookies.of(url)
    const key = `${url.href.split('#', 1)[0] ?? ''} ${sent}`
    if (seen.has(key)) return ended('loop')
    if (hops.length > limits.hops) return ended('too-many-hops')
    seen.add(key)
    const from = performance.now()
    let response: IncomingMessage
    try {
      response = await get(url, sent, reach, signal, limits.bytes)
    } catch (error) {
      hops.push({ address: url.href, status: null, ms: since(from), to: null })
      return { ...ended('unreachable'), ending: endingOf(error, signal) }
    }
    const status = response.statusCode ?? 0
    const { location } = response.headers
    cookies.keep(url, response)
    const next = REDIRECTS.has(status) && location !== undefined ? readUrl(location, url) : null
    hops.push({ address: url.href, status, ms: since(from), to: next?.href ?? null })
    if (!REDIRECTS.has(status) || location === undefined) return ended('answered')
    if (!next || !/^https?:$/.test(next.protocol)) return ended('odd-redirect')
    if (next.hash === '' && url.hash !== '') next.hash = url.hash
    url = next
  }
}
