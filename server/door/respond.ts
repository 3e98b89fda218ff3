import type { ServerResponse } from 'node:http'
import { gzipSync } from 'node:zlib'
import type { Decision } from '@flimbo/core/routing'
import type { OwnPage } from '@flimbo/core/words'
import type { Doorway } from '../domains/index.ts'
import { locationPage, passwordPage } from './askPages.ts'
import { messagePage, ownWords, ROBOTS, unknownPage, type Rendered } from './pages.ts'
import type { PageShelf, Worn } from '../pages/index.ts'
import { voiceFor } from './voice.ts'

/** Answers with what was decided, but for a page, which is drawn first. `asked` is the seal of the scan, for pages that ask something. */
export function carryOut(
  response: ServerResponse,
  decision: Exclude<Decision, { kind: 'page' }>,
  isForm: boolean,
  worn: Worn,
  asked: () => string,
): void {
  if (decision.kind === 'redirect') sendOn(response, decision.address, isForm ? 303 : 302)
  else if (decision.kind === 'ask') {
    const spoken = voiceFor(response.req, worn)
    send(
      response,
      decision.ask === 'password'
        ? passwordPage(asked(), spoken)
        : locationPage(asked(), decision.why, spoken),
    )
  } else if (decision.message === 'own')
    send(response, messagePage(decision.title, decision.text, voiceFor(response.req, worn)))
  else sendPage(response, decision.message, worn)
}

export function sendOn(response: ServerResponse, address: string, status = 302): void {
  response.writeHead(status, { Location: address, 'Cache-Control': 'no-store', 'Content-Length': '0' })
  response.end()
}

/** What a domain says of short links it does not have: its own words, or its own address. */
export function sendUnknown(
  { shelf }: { readonly shelf: Pick<PageShelf, 'wornAt'> },
  response: ServerResponse,
  { id, unknown, unknownText }: Doorway,
): void {
  if (unknown !== '') {
    sendOn(response, unknown)
    return
  }
  const say = (worn?: Worn) => {
    if (unknownText === '') sendPage(response, 'unknown', worn)
    else send(response, unknownPage(unknownText, voiceFor(response.req, worn)))
  }
  // Whatever it looks like, it is said.
  shelf.wornAt(id).then(say, () => {
    say()
  })
}

/** Says that a short link is asked for with GET or HEAD. */
export function refuseMethod(response: ServerResponse): void {
  response.setHeader('Allow', 'GET, HEAD')
  sendPage(response, 'method')
}

/** Sends one of the front door’s own pages, in the visitor's language. */
export function sendPage(response: ServerResponse, name: OwnPage, worn?: Worn): void {
  send(response, ownWords(name, voiceFor(response.req, worn)))
}

/** Bytes of a page that are worth packing for a slow connection. */
const GZIP_FROM = 4096

/** Sends a page that was made for this visit, or the way on from it. */
export function send(response: ServerResponse, page: Rendered | { readonly goOn: string }): void {
  if ('goOn' in page) {
    sendOn(response, page.goOn, 303)
    return
  }
  const { status, body: plain, dress, language, policy = [], security, hidesReferrer } = page
  const isSmaller =
    plain.length > GZIP_FROM && /\bgzip\b/.test(String(response.req.headers['accept-encoding']))
  const body = isSmaller ? gzipSync(plain, { level: 6 }) : plain
  response.writeHead(status, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Length': body.length,
    ...(language === undefined ? {} : { 'Content-Language': language }),
    'Cache-Control': 'no-store',
    ...(isSmaller ? { 'Content-Encoding': 'gzip' } : {}),
    'Content-Security-Policy':
      security ??
      `default-src 'none'; style-src ${dress?.source ?? "'none'"}${policy.some((each) => each.startsWith('img-src')) ? '' : "; img-src 'self'"}; base-uri 'none'; frame-ancestors 'none'${policy.map((directive) => `; ${directive}`).join('')}`,
    'X-Content-Type-Options': 'nosniff',
    ...(hidesReferrer ? { 'Referrer-Policy': 'no-referrer' } : {}),
    ...(status === 503 ? { 'Retry-After': '60' } : {}),
  })
  response.end(body)
}

/** Asks crawlers to stay away. */
export function sendRobots(response: ServerResponse): void {
  response.writeHead(200, { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': 'max-age=3600' })
  response.end(ROBOTS)
}
