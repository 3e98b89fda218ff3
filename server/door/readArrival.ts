import type { IncomingMessage } from 'node:http'
import proxyaddr from 'proxy-addr'
import { NONE_TAKEN, type Arrival, type Taken } from '@flimbo/core/routing'
import type { Config } from '../config/index.ts'
import type { Posting } from '../routing/index.ts'
import {
  visitorHash,
  type DailySalts,
  type Enriched,
  type Enricher,
  type RequestFacts,
  type SeenToday,
  type Today,
} from '../scans/index.ts'
import type { Given } from './forms.ts'
import { rehearsalOf, type Rehearsals } from './rehearsal.ts'

export interface ArrivalParts {
  readonly config: Pick<Config, 'trust'>
  readonly enrich: Enricher
  readonly salts: DailySalts
  readonly seen: SeenToday
  readonly rehearsals: Rehearsals
}

/** A scan that has come in, with everything it can be decided and recorded by. */
export interface CameIn {
  readonly arrival: Arrival
  readonly enriched: Enriched
  readonly day: string
  readonly visitor: string
  /** What it takes at most one place of a limit by; empty where each scan takes its own. */
  readonly mark: string
}

type Header = string | string[] | undefined
const text = (header: Header): string => (typeof header === 'string' ? header : (header?.join(', ') ?? ''))

/** The visitor's network address: the peer's, what a trusted proxy says of it, or what a rehearsal pretends. */
export function addressOf(
  { config: { trust }, rehearsals }: Pick<ArrivalParts, 'config' | 'rehearsals'>,
  request: IncomingMessage,
): { address: string; isRehearsed: boolean } {
  const rehearsal = rehearsalOf(rehearsals, text(request.headers['flimbo-rehearsal']))
  if (rehearsal) return { address: rehearsal.address, isRehearsed: true }
  return {
    address: trust ? proxyaddr(request, trust) : (request.socket.remoteAddress ?? ''),
    isRehearsed: false,
  }
}

/** What a request says of itself. @param onward whether it is the next step of an earlier one */
export function factsOf(
  parts: Pick<ArrivalParts, 'config' | 'rehearsals'>,
  request: IncomingMessage,
  onward: boolean,
): RequestFacts {
  const { method = '', headers } = request
  const { address, isRehearsed } = addressOf(parts, request)
  return {
    method,
    address,
    userAgent: headers['user-agent'] ?? '',
    acceptLanguage: headers['accept-language'] ?? '',
    purpose: text(headers['sec-purpose'] ?? headers.purpose ?? headers['x-moz']),
    referer: headers.referer ?? '',
    test: isRehearsed,
    onward,
  }
}

/** How far a scan has got: its query without a pass, whether the password was given, and what its form said. */
export interface Standing {
  readonly query: string
  readonly unlocked: boolean
  /** The scan it goes on from, which was asked something and is on disk; empty where it is one itself. */
  readonly scan: string
  readonly given: Given | null
}

/** Reads all that is to be known of a request for a short link. The network address goes no further than this. */
export function readArrival(
  parts: ArrivalParts,
  request: IncomingMessage,
  posting: Posting,
  { query, unlocked, scan, given }: Standing,
  today: Today,
  at: number,
): CameIn {
  const facts = factsOf(parts, request, scan !== '')
  const { day, salt } = today
  const visitor = visitorHash(salt, facts.address, facts.userAgent)
  const enriched = parts.enrich(facts)
  const {
    compiled: { route },
    counter,
    workspaceId,
    codeId,
  } = posting
  const repeat = route.asksRepeat && parts.seen.isRepeat(workspaceId, day, codeId, visitor, scan !== '')
  const mark = markOf(route.life?.once === true, visitor, scan)
  const taken: Taken = counter?.taken(at) ?? NONE_TAKEN
  return {
    enriched,
    day,
    visitor,
    mark,
    arrival: {
      at,
      query,
      place: enriched.place,
      device: enriched.device,
      languages: enriched.languages,
      visitor,
      repeat,
      precise: given?.precise ?? null,
      unlocked,
      taken,
      counted:
        counter !== null && mark !== '' && counter.isUsedUp(taken) && counter.has(workspaceId, day, mark),
    },
  }
}

function markOf(isOnceADay: boolean, visitor: string, scan: string): string {
  if (isOnceADay) return `visitor ${visitor}`
  return scan === '' ? '' : `scan ${scan}`
}
