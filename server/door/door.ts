import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { Logger } from 'pino'
import { canonicalSlug } from '@flimbo/core/codes'
import { decide, isLetThrough, type Decision } from '@flimbo/core/routing'
import type { Outcome, Place } from '@flimbo/core/scans'
import type { Domains, Doorway } from '../domains/index.ts'
import type { Lookup, Posting } from '../routing/index.ts'
import { DoorBusy, type Hits, type ScanRecord, type ScanWriter } from '../scans/index.ts'
import { arrive, type ArrivalParts, type CameIn, type Standing } from './arrive.ts'
import { locationPage, passwordPage } from './askPages.ts'
import { readForm, rounded } from './forms.ts'
import { afterAsking, onTheWay, type OnTheWayParts } from './onTheWay.ts'
import { messagePage, ownPage, RENDERED, ROBOTS, unknownPage, type PageName, type Rendered } from './pages.ts'
import { takePass } from './passes.ts'
import { enterPassword, type PasswordParts } from './password.ts'

export interface DoorParts extends ArrivalParts, PasswordParts, OnTheWayParts {
  readonly domains: Pick<Domains, 'of'>
  readonly lookup: Lookup
  readonly writer: ScanWriter
  readonly log: Logger
}

/** One request for a short link, and what it is answered by. */
interface Call {
  readonly request: IncomingMessage
  readonly response: ServerResponse
  readonly doorway: Doorway
  readonly path: string
  readonly query: string
}

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
  if (method !== 'GET' && method !== 'HEAD' && method !== 'POST') { refuseMethod(response); return }
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

  const call: Call = { request, response, doorway, path, query }
  const slug = canonicalSlug(path.endsWith('/') ? path.slice(1, -1) : path.slice(1))
  const next = method === 'POST' ? answerForm : answerLink
  const posting = parts.lookup.known(doorway.id, slug)
  if (posting !== undefined) { next(parts, call, posting); return }
  parts.lookup.find(doorway.id, slug).then(
    (found) => { next(parts, call, found) },
    (error: unknown) => { refuse(parts, response, error) },
  )
}

/** Answers who scanned a code, or comes back with a pass. */
function answerLink(parts: DoorParts, call: Call, posting: Posting | null): void {
  if (!posting) { sendUnknown(call.response, call.doorway); return }
  const { pass, rest } = takePass(call.query)
  const unlocked = isUnlocked(parts, posting, pass)
  answer(parts, call, posting, { query: rest, unlocked, onward: unlocked, given: null })
}

/** Whether a scan comes with a good pass for a password that stands before its route. */
function isUnlocked({ passes }: DoorParts, { codeId, passwordHash }: Posting, pass: string): boolean {
  return passwordHash !== '' && pass !== '' && passes.isGood(pass, codeId, passwordHash, Date.now())
}

/** Answers who filled in a form of the front door: a password, where the phone is, or whether tags may fire. */
function answerForm(parts: DoorParts, call: Call, posting: Posting | null): void {
  if (!posting) { sendUnknown(call.response, call.doorway); return }
  const { rules, locked } = posting.compiled.route.settings
  const isAsking = locked === true || Boolean(rules?.askLocation)
  readForm(call.request).then(async (given) => {
    if (given?.onward) {
      // The scan was stored when it was asked. Asked too long ago, it is scanned anew: nobody is left standing.
      send(call.response, afterAsking(parts, posting, given.onward, given.agreed, Date.now()) ?? { goOn: call.query === '' ? call.path : `${call.path}?${call.query}` })
      return
    }
    if (!isAsking) { refuseMethod(call.response); return }
    if (!given) { sendPage(call.response, 'malformed'); return }
    const { pass, rest } = takePass(call.query)
    if (given.password !== null) {
      const came = arrive(parts, call.request, posting, { query: rest, unlocked: false, onward: true, given: null })
      send(call.response, await enterPassword(parts, posting, came.visitor, given.password, call.path, rest))
      return
    }
    answer(parts, call, posting, { query: rest, unlocked: isUnlocked(parts, posting, pass), onward: true, given })
  }).catch((error: unknown) => { refuse(parts, call.response, error) })
}

/** Decides, records, and only once the scan is on disk, answers. */
function answer(parts: DoorParts, { request, response }: Call, posting: Posting, standing: Standing): void {
  try {
    const came = arrive(parts, request, posting, standing)
    const { arrival, enriched: { apart } } = came
    const decision = decide(posting.compiled, arrival)
    const isReal = apart === null || apart === 'onward'
    const takes = posting.counter !== null && isReal && isLetThrough(decision)
    // Taken before the scan is stored: the next one is decided before that.
    if (takes) posting.counter?.take(arrival.at)
    const onWay = onTheWay(parts, posting, came, decision)
    parts.writer.store(recordOf(posting, came, decision, standing, onWay?.hits ?? null), (error) => {
      if (error && takes) posting.counter?.giveBack(arrival.at)
      if (error) refuse(parts, response, error)
      else if (onWay?.page) send(response, onWay.page)
      else carryOut(response, decision, request.method === 'POST')
    })
    if (isReal && posting.compiled.route.asksRepeat) parts.seen.now(came.day, posting.codeId, came.visitor, decision.kind === 'ask' && !arrival.repeat)
  } catch (error) {
    refuse(parts, response, error)
  }
}

/** What a decision is recorded as. */
export function outcomeOf(decision: Decision): Outcome {
  if (decision.kind === 'redirect') return 'redirect'
  if (decision.kind === 'page') return 'page'
  if (decision.kind === 'ask') return decision.ask
  return decision.message === 'own' ? 'message' : decision.message
}

function recordOf(posting: Posting, { arrival, enriched, day, visitor }: CameIn, decision: Decision, { given }: Standing, hits: Hits | null): ScanRecord {
  const { apart, place, device, language, referrer } = enriched
  const precise = given?.keep === true && given.precise !== null && given.precise !== 'refused' ? given.precise : null
  const kept: Place = precise ? { ...place, ...rounded(precise) } : place
  return {
    at: arrival.at, workspaceId: posting.workspaceId, campaignId: posting.campaignId, day, codeId: posting.codeId, routeId: posting.routeId, revisionId: posting.revisionId,
    outcome: outcomeOf(decision), exit: decision.exit, variant: decision.variant, apart, place: kept, device, language, referrer, visitor, hits,
  }
}

function carryOut(response: ServerResponse, decision: Decision, isForm: boolean): void {
  if (decision.kind === 'redirect') sendOn(response, decision.address, isForm ? 303 : 302)
  else if (decision.kind === 'ask') send(response, decision.ask === 'password' ? passwordPage() : locationPage(decision.why))
  else if (decision.kind === 'page') send(response, ownPage(decision.page))
  else if (decision.message === 'own') send(response, messagePage(decision.title, decision.text))
  else sendPage(response, decision.message)
}

function sendOn(response: ServerResponse, address: string, status = 302): void {
  response.writeHead(status, { Location: address, 'Cache-Control': 'no-store', 'Content-Length': '0' })
  response.end()
}

/** What a domain says of short links it does not have: its own words, or its own address. */
function sendUnknown(response: ServerResponse, { unknown, unknownText }: Doorway): void {
  if (unknown !== '') sendOn(response, unknown)
  else if (unknownText === '') sendPage(response, 'unknown')
  else send(response, unknownPage(unknownText))
}

function refuseMethod(response: ServerResponse): void {
  response.setHeader('Allow', 'GET, HEAD')
  sendPage(response, 'method')
}

function sendPage(response: ServerResponse, name: PageName): void {
  send(response, RENDERED[name])
}

function send(response: ServerResponse, page: Rendered | { readonly goOn: string }): void {
  if ('goOn' in page) { sendOn(response, page.goOn, 303); return }
  const { status, body, policy = [], hidesReferrer } = page
  response.writeHead(status, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Length': body.length,
    'Cache-Control': 'no-store',
    'Content-Security-Policy': `default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; frame-ancestors 'none'${policy.map((directive) => `; ${directive}`).join('')}`,
    'X-Content-Type-Options': 'nosniff',
    ...(hidesReferrer ? { 'Referrer-Policy': 'no-referrer' } : {}),
    ...(status === 503 ? { 'Retry-After': '60' } : {}),
  })
  response.end(body)
}

function sendRobots(response: ServerResponse): void {
  response.writeHead(200, { 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': 'max-age=3600' })
  response.end(ROBOTS)
}

/** No redirect without its scan on disk: the phone is asked to come again, and the log says why. */
function refuse({ log }: Pick<DoorParts, 'log'>, response: ServerResponse, error: unknown): void {
  if (error instanceof DoorBusy) log.warn('front door: %s', error.message)
  else log.error({ error }, 'front door: a scan could not be answered')
  if (!response.headersSent) sendPage(response, 'busy')
}
