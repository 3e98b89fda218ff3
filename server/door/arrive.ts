import type { IncomingMessage } from 'node:http'
import proxyaddr from 'proxy-addr'
import { NONE_TAKEN, type Arrival } from '@flimbo/core/routing'
import type { Config } from '../config/index.ts'
import type { Posting } from '../routing/index.ts'
import { visitorHash, type DailySalts, type Enriched, type Enricher, type RequestFacts, type SeenToday } from '../scans/index.ts'
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
}

type Header = string | string[] | undefined
const text = (header: Header): string => (typeof header === 'string' ? header : (header?.join(', ') ?? ''))

/** The visitor's network address: the peer's, or what a trusted proxy says of it. */
function addressOf(request: IncomingMessage, trust: Config['trust']): string {
  if (!trust) return request.socket.remoteAddress ?? ''
  return proxyaddr(request, trust)
}

/** How far a scan has got: its query without a pass, whether the password was given, and what its form said. */
export interface Standing {
  readonly query: string
  readonly unlocked: boolean
  readonly onward: boolean
  readonly given: Given | null
}

/** Reads all that is to be known of a request for a short link. The network address goes no further than this. */
export function arrive({ config, enrich, salts, seen, rehearsals }: ArrivalParts, request: IncomingMessage, posting: Posting, { query, unlocked, onward, given }: Standing): CameIn {
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
    onward,
  }
  const at = Date.now()
  const { day, salt } = salts.today(posting.workspaceId, posting.workspaceZone, at)
  const visitor = visitorHash(salt, address, facts.userAgent)
  const enriched = enrich(facts)
  const repeat = posting.compiled.route.asksRepeat && seen.isRepeat(posting.workspaceId, day, posting.codeId, visitor, onward)
  return {
    enriched, day, visitor,
    arrival: {
      at, query, place: enriched.place, device: enriched.device, languages: enriched.languages, visitor, repeat,
      precise: given?.precise ?? null, unlocked, taken: posting.counter?.taken(at) ?? NONE_TAKEN,
    },
  }
}
