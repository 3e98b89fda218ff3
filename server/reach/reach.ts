import { lookup as dnsLookup, type LookupAddress } from 'node:dns'
import {
  request as httpRequest,
  type ClientRequest,
  type IncomingMessage,
  type RequestOptions,
} from 'node:http'
import { request as httpsRequest } from 'node:https'
import { isIP, type LookupFunction } from 'node:net'
import { isPublicAddress } from './addresses.ts'

/** How the server may reach out to addresses that people gave. */
export interface Reach {
  /** Whether private addresses may be reached as well. */
  readonly privateToo: boolean
  /** Where a site is found that a stand-in answers for, on this machine; null for every real one. */
  readonly standIn: (url: URL) => { readonly host: string; readonly port: number } | null
  /** Finds the addresses of a name; the system's own look-up where it is left out. */
  readonly lookup?: (name: string) => Promise<readonly LookupAddress[]>
}

/** The way led to an address that must not be reached. */
export class ForbiddenAddress extends Error {
  override readonly name = 'ForbiddenAddress'
}

function systemLookup(name: string): Promise<LookupAddress[]> {
  return new Promise((resolve, reject) => {
    dnsLookup(name, { all: true, verbatim: true }, (error, addresses) => {
      if (error) reject(error)
      else resolve(addresses)
    })
  })
}

/**
 * Resolves a name, refuses it if any of its addresses is private, and hands on just what was checked: the
 * connection is made to that very address, so a name that answers differently the second time gains nothing.
 */
function vettedLookup({ privateToo, lookup = systemLookup }: Reach): LookupFunction {
  return (name, options, done) => {
    lookup(name).then(
      (addresses) => {
        if (!privateToo && addresses.some(({ address }) => !isPublicAddress(address))) {
          done(new ForbiddenAddress(name), '', 0)
          return
        }
        const [first] = addresses
        if (!first) done(Object.assign(new Error('no address'), { code: 'ENOTFOUND' }), '', 0)
        else if (options.all) done(null, [...addresses])
        else done(null, first.address, first.family)
      },
      (error: unknown) => {
        done(error instanceof Error ? error : new Error(String(error)), '', 0)
      },
    )
  }
}

/** Begins a request to an address that somebody gave, on a connection of its own. @throws ForbiddenAddress where the address itself is private */
export function requestTo(
  url: URL,
  reach: Reach,
  { headers, ...options }: RequestOptions,
  answered: (response: IncomingMessage) => void,
): ClientRequest {
  const whole = {
    agent: false,
    path: url.pathname + url.search,
    headers: { ...headers, Host: url.host },
    ...options,
  }
  const standIn = reach.standIn(url)
  if (standIn) return httpRequest({ ...whole, ...standIn }, answered)
  const literal = url.hostname.replace(/^\[|\]$/g, '')
  const isName = isIP(literal) === 0
  if (!reach.privateToo && !isName && !isPublicAddress(literal)) throw new ForbiddenAddress(literal)
  const isSecure = url.protocol === 'https:'
  const connection = {
    host: literal,
    port: url.port || (isSecure ? 443 : 80),
    lookup: vettedLookup(reach),
    ...(isName ? { servername: literal } : {}),
  }
  return (isSecure ? httpsRequest : httpRequest)({ ...whole, ...connection }, answered)
}
