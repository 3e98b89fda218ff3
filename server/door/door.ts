import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import proxyaddr from 'proxy-addr'
import type { Logger } from 'pino'
import { canonicalSlug } from '@flimbo/core/codes'
import { decide, type Decision } from '@flimbo/core/routing'
import type { Outcome } from '@flimbo/core/scans'
import type { Config } from '../config/index.ts'
import type { Domains, Doorway } from '../domains/index.ts'
import type { Lookup, Posting } from '../routing/index.ts'
import { DoorBusy, visitorHash, type DailySalts, type Enricher, type RequestFacts, type ScanWriter } from '../scans/index.ts'
import { RENDERED, ROBOTS, unknownPage, type PageName, type Rendered } from './pages.ts'
import { rehearsalOf, type Rehearsals } from './rehearsal.ts'

export interface DoorParts {
  readonly config: Pick<Config, 'trust'>
  readonly domains: Pick<Domains, 'of'>
  readonly lookup: Lookup
  readonly enrich: Enricher
  readonly salts: DailySalts
  readonly writer: ScanWriter
  readonly rehearsals: Rehearsals
  readonly log: Logger
}

type Header = string | string[] | undefined
const text = (header: Header): string => (typeof header === 'string' ? header : (header?.join(', ') ?? ''))

/**
 * The front door: what phones reach. It is a bare HTTP server because every printed code waits for it;
 * it sets no cookie and shares nothing with the office but the process.
 */
export function frontDoor(parts: DoorParts): Server {
  return createServer({ maxHeaderSize: 16_384, requestTimeout: 15_000, headersTimeout: 10_000 }, (request, response) => {
    receive(parts, request, response)
  })
}

/** Sorts out what is no short link, then looks the slug up: in memory, or else in the database. */
function receive(parts: DoorParts, request: IncomingMessage, response: ServerResponse): void {
  const { method = '', url = '' } = request
  if (method !== 'GET' && method !== 'HEAD') {
    response.setHeader('Allow', 'GET, HEAD')
    sendPage(response, 'method')
    return
  }
  const mark = url.indexOf('?')
  const path = mark < 0 ? url : url.slice(0, mark)
  const query = mark < 0 ? '' : url.slice(mark + 1)
  const doorway = parts.domains.of(request.headers.host)
  if (path === '/robots.txt') { sendRobots(response); return }
  if (doorway.state === 'removed') { sendUnknown(response, doorway); return }
  if (path === '/') {
    if (doorway.home === '') sendPage(response, 'home')
    else sendOn(response, doorway.home)
    return
  }

  const slug = canonicalSlug(path.endsWith('/') ? path.slice(1, -1) : path.slice(1))
  const posting = parts.lookup.known(doorway.id, slug)
  if (posting !== undefined) { answer(parts, request, response, doorway, posting, query); return }
  parts.lookup.find(doorway.id, slug).then(
    (found) => { answer(parts, request, response, doorway, found, query) },
    (error: unknown) => { refuse(parts, response, error) },
  )
}

/** Decides, records, and only once the scan is on disk, answers. */
function answer(parts: DoorParts, request: IncomingMessage, response: ServerResponse, doorway: Doorway, posting: Posting | null, query: string): void {
  if (!posting) { sendUnknown(response, doorway); return }
  try {
    const decision = decide(posting.compiled, { query })
    const outcome: Outcome = decision.kind === 'redirect' ? 'redirect' : decision.message
    parts.writer.store(recordOf(parts, request, posting, outcome), (error) => {
      if (error) refuse(parts, response, error)
      else carryOut(response, decision)
    })
  } catch (error) {
    refuse(parts, response, error)
  }
}

function recordOf({ config, enrich, salts, rehearsals }: DoorParts, request: IncomingMessage, posting: Posting, outcome: Outcome) {
  const { headers } = request
  const rehearsal = rehearsalOf(rehearsals, text(headers['flimbo-rehearsal']))
  const address = rehearsal?.address ?? addressOf(request, config.trust)
  const facts: RequestFacts = {
    method: request.method ?? '',
    address,
    userAgent: headers['user-agent'] ?? '',
    acceptLanguage: headers['accept-language'] ?? '',
    purpose: text(headers['sec-purpose'] ?? headers.purpose ?? headers['x-moz']),
    referer: headers.referer ?? '',
    test: rehearsal !== null,
  }
  const at = Date.now()
  const { day, salt } = salts.today(posting.workspaceId, posting.workspaceZone, at)
  return {
    at, workspaceId: posting.workspaceId, campaignId: posting.campaignId, day, codeId: posting.codeId, routeId: posting.routeId, revisionId: posting.revisionId, outcome,
    ...enrich(facts),
    visitor: visitorHash(salt, address, facts.userAgent),
  }
}

/** The visitor's network address: the peer's, or what a trusted proxy says of it. */
function addressOf(request: IncomingMessage, trust: Config['trust']): string {
  if (!trust) return request.socket.remoteAddress ?? ''
  return proxyaddr(request, trust)
}

function carryOut(response: ServerResponse, decision: Decision): void {
  if (decision.kind === 'message') { sendPage(response, decision.message); return }
  sendOn(response, decision.address)
}

function sendOn(response: ServerResponse, address: string): void {
  response.writeHead(302, { Location: address, 'Cache-Control': 'no-store', 'Content-Length': '0' })
  response.end()
}

/** What a domain says of short links it does not have: its own words, or its own address. */
function sendUnknown(response: ServerResponse, { unknown, unknownText }: Doorway): void {
  if (unknown !== '') sendOn(response, unknown)
  else if (unknownText === '') sendPage(response, 'unknown')
  else send(response, unknownPage(unknownText))
}

function sendPage(response: ServerResponse, name: PageName): void {
  send(response, RENDERED[name])
}

function send(response: ServerResponse, { status, body }: Rendered): void {
  response.writeHead(status, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Length': body.length,
    'Cache-Control': 'no-store',
    'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'",
    'X-Content-Type-Options': 'nosniff',
    ...(status === 503 ? { 'Retry-After': '60' } : {}),
  })
  response.end(body)
}

function sendRobots(response: ServerResponse): void {
  response.writeHead(200, { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': 'max-age=3600' })
  response.end(ROBOTS)
}

/** No redirect without its scan on disk: the phone is asked to come again, and the log says why. */
function refuse({ log }: DoorParts, response: ServerResponse, error: unknown): void {
  if (error instanceof DoorBusy) log.warn('front door: %s', error.message)
  else log.error({ error }, 'front door: a scan could not be answered')
  if (!response.headersSent) sendPage(response, 'busy')
}
