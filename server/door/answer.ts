import type { IncomingMessage, ServerResponse } from 'node:http'
import { decide, isLetThrough, type Decision } from '@flimbo/core/routing'
import { apartAfter, isPersons, isVisit, type Outcome, type Place } from '@flimbo/core/scans'
import type { Doorway } from '../domains/index.ts'
import type { Worn } from '../pages/index.ts'
import type { Posting } from '../routing/index.ts'
import { showPage, type PageParts } from './pageRequests.ts'
import type { OutboxEntry, NoneLeft, ScanRecord, ScanWriter, Takes, Today } from '../scans/index.ts'
import { readArrival, type ArrivalParts, type CameIn, type Standing } from './readArrival.ts'
import { roundPlace } from './forms.ts'
import { onTheWay, type OnTheWayParts } from './onTheWay.ts'
import { carryOut, send, sendPage } from './respond.ts'
import { scanName } from './sealed.ts'
import { withReference, type ReferenceParts } from './siteReference.ts'

export interface AnswerParts extends ArrivalParts, OnTheWayParts, PageParts, ReferenceParts {
  readonly writer: ScanWriter
  /** Logs what may happen with every scan, such as a full disk, without filling the log. */
  readonly complain: (error: unknown, sentence: string) => void
}

/** A request for a short link that leads somewhere, and how far it has got. */
interface Scanned {
  readonly request: IncomingMessage
  readonly response: ServerResponse
  readonly doorway: Pick<Doorway, 'id'>
  /** What the front door wears at this code. */
  readonly worn: Worn
  readonly posting: Posting
  readonly standing: Standing
}

/** Decides, records, and only once the scan is on disk, answers. */
export function answer(
  parts: AnswerParts,
  request: IncomingMessage,
  response: ServerResponse,
  doorway: Pick<Doorway, 'id'>,
  posting: Posting,
  standing: Standing,
): void {
  try {
    const at = Date.now()
    const today = parts.salts.today(posting.workspaceId, posting.workspaceZone, at)
    const worn = parts.shelf.wornNow(posting.campaignId)
    const scanned = { request, response, doorway, posting, standing }
    if (!(today instanceof Promise) && worn) {
      decideAndStore(parts, { ...scanned, worn }, today, at)
      return
    }
    // The first scan of a day waits until its salt is stored, the first of a campaign until its style is read.
    Promise.all([today, worn ?? parts.shelf.worn(posting.campaignId)])
      .then(([begun, found]) => {
        decideAndStore(parts, { ...scanned, worn: found }, begun, at)
      })
      .catch((error: unknown) => {
        refuse(parts, response, error)
      })
  } catch (error) {
    refuse(parts, response, error)
  }
}

function decideAndStore(parts: AnswerParts, scanned: Scanned, today: Today, at: number): void {
  const { request, posting, standing } = scanned
  const came = readArrival(parts, request, posting, standing, today, at)
  store(parts, scanned, came, decide(posting.compiled, came.arrival))
}

/** Stores a scan as it was decided; where its route had nothing left by then, it is decided anew as one too many. */
function store(parts: AnswerParts, scanned: Scanned, came: CameIn, decision: Decision): void {
  const { response, posting, standing } = scanned
  const {
    enriched: { apart },
    arrival,
  } = came
  const isReal = isPersons(apart)
  const onWay = onTheWay(parts, posting, came, decision, scanned.worn)
  const takes =
    posting.counter !== null && isReal && isLetThrough(decision)
      ? { day: posting.counter.dayOf(arrival.at), mark: came.mark }
      : null
  const seen =
    isReal && posting.compiled.route.asksRepeat
      ? parts.seen.now(came.day, posting.codeId, came.visitor, decision.kind === 'ask' && !arrival.repeat)
      : null
  try {
    parts.writer.store(recordOf(posting, came, decision, standing, takes, onWay?.outbox ?? []), (outcome) => {
      seen?.(outcome.kind === 'stored')
      if (outcome.kind === 'failed') refuse(parts, response, outcome.error)
      else if (outcome.kind === 'none-left') answerOverLimit(parts, scanned, came, outcome.none)
      else if (decision.kind === 'page') answerWithPage(parts, scanned, came, decision, outcome.scanId)
      else {
        const leading = withName(parts, scanned, came, decision, outcome.scanId)
        if (onWay?.page && leading.kind === 'redirect') send(response, onWay.page(leading.address))
        else
          carryOut(response, leading, scanned.request.method === 'POST', scanned.worn, () =>
            askedAs(parts, posting, standing, arrival.at),
          )
      }
    })
  } catch (error) {
    seen?.(false)
    throw error
  }
}

/** A decision that leads on, with the reference of its scan where the site is to be told; else as it was. */
function withName(
  parts: AnswerParts,
  { posting }: Scanned,
  { arrival: { at }, enriched: { apart } }: CameIn,
  decision: Exclude<Decision, { kind: 'page' }>,
  scanId: number,
): Exclude<Decision, { kind: 'page' }> {
  if (decision.kind !== 'redirect' || scanId === 0) return decision
  const { codeId, routeId } = posting
  const scan = { codeId, scanId, routeId, at, apart: apartAfter(apart) }
  return { ...decision, address: withReference(parts, posting, scan, decision.address) }
}

function answerWithPage(
  parts: AnswerParts,
  { request, response, posting, doorway }: Scanned,
  { arrival, enriched: { apart } }: CameIn,
  { page }: Extract<Decision, { kind: 'page' }>,
  scanId: number,
): void {
  const { codeId, routeId, revisionId } = posting
  const { path } = linkPath(request)
  showPage(
    parts,
    response,
    { pageId: page.id, domainId: doorway.id, posting, visit: arrival, path },
    {
      codeId,
      scanId,
      routeId,
      revisionId,
      at: arrival.at,
      repeat: arrival.repeat,
      apart: apartAfter(apart),
    },
  ).catch((error: unknown) => {
    refuse(parts, response, error)
  })
}

/** The path of a short link, however it was written. */
function linkPath({ url = '' }: IncomingMessage): { path: string } {
  const mark = url.indexOf('?')
  const path = mark < 0 ? url : url.slice(0, mark)
  return { path: path.length > 1 && path.endsWith('/') ? path.slice(0, -1) : path }
}

/** The seal of the scan that is being asked something: of the one it goes on from, where it does. */
function askedAs({ seals }: AnswerParts, { codeId }: Posting, { scan }: Standing, at: number): string {
  return seals.seal(codeId, { kind: 'asked', scan: scan === '' ? scanName() : scan }, at)
}

const NO_END = Number.MAX_SAFE_INTEGER

function answerOverLimit(
  parts: AnswerParts,
  scanned: Scanned,
  came: CameIn,
  { why, total, today }: NoneLeft,
): void {
  const taken = why === 'full' ? { total: NO_END, today } : { total, today: NO_END }
  const arrival = { ...came.arrival, taken, counted: false }
  try {
    store(parts, scanned, { ...came, arrival }, decide(scanned.posting.compiled, arrival))
  } catch (error) {
    refuse(parts, scanned.response, error)
  }
}

/** What a decision is recorded as. */
export function outcomeOf(decision: Decision): Outcome {
  if (decision.kind === 'redirect') return 'redirect'
  if (decision.kind === 'page') return 'page'
  if (decision.kind === 'ask') return decision.ask
  return decision.message === 'own' ? 'message' : decision.message
}

function recordOf(
  posting: Posting,
  came: CameIn,
  decision: Decision,
  { given }: Standing,
  takes: Takes | null,
  outbox: readonly OutboxEntry[],
): ScanRecord {
  const { arrival, enriched, day, visitor } = came
  const { workspaceId, campaignId, codeId, routeId, revisionId, referenceHours } = posting
  const { apart, place, device, language, referrer } = enriched
  const precise =
    given?.keep === true && given.precise !== null && given.precise !== 'refused' ? given.precise : null
  const kept: Place = precise ? { ...place, ...roundPlace(precise) } : place
  return {
    at: arrival.at,
    workspaceId,
    campaignId,
    day,
    codeId,
    routeId,
    revisionId,
    outcome: outcomeOf(decision),
    exit: decision.exit,
    variant: decision.variant,
    apart,
    place: kept,
    device,
    language,
    referrer,
    visitor,
    takes,
    isNamed: referenceHours > 0 && decision.kind === 'redirect' && isVisit(apart),
    pageId: decision.kind === 'page' ? decision.page.id : null,
    outbox,
  }
}

/** No redirect without its scan on disk: the phone is asked to come again, and the log says why. */
export function refuse(
  { complain }: Pick<AnswerParts, 'complain'>,
  response: ServerResponse,
  error: unknown,
): void {
  complain(error, 'front door: a scan could not be answered')
  if (!response.headersSent) sendPage(response, 'busy')
}
