import { randomUUID } from 'node:crypto'
import type { Decision } from '@flimbo/core/routing'
import { isVisit } from '@flimbo/core/scans'
import { HIT, type VisitValues } from '@flimbo/core/visitTags'
import type { Posting } from '../routing/index.ts'
import type { OutboxEntry } from '../scans/index.ts'
import type { CameIn } from './readArrival.ts'
import type { Worn } from '../pages/index.ts'
import { voiceIn, type Voice } from './voice.ts'
import type { Given } from './forms.ts'
import { consentPage, lightPage } from './lightPage.ts'
import type { Rendered } from './pages.ts'
import type { Seals } from './sealed.ts'

export interface OnTheWayParts {
  readonly seals: Seals
}

/** What the tags of a route do to one of its visits. */
export interface OnTheWay {
  /** What the server is to send once the scan is on disk. */
  readonly outbox: readonly OutboxEntry[]
  /** The page on which tags fire, or are asked for first, on the way to an address; null for a plain redirect. */
  readonly page: ((address: string) => Rendered) | null
}

/**
 * Works out what fires on the way of a scan that is sent on; null where nothing does. Programs are sent on
 * plainly: they fire nothing, and are in no figure of a collector either.
 */
export function onTheWay(
  { seals }: OnTheWayParts,
  {
    fired,
    codeId,
    compiled: {
      code: { settings },
    },
  }: Posting,
  { arrival, enriched }: CameIn,
  decision: Decision,
  worn: Worn,
): OnTheWay | null {
  const { apart, place, language, device } = enriched
  if (!fired || decision.kind !== 'redirect' || !isVisit(apart)) return null
  const { page, asked, server, consent } = fired
  const visit: VisitValues = {
    ...settings.utm,
    address: decision.address,
    code: settings.slug ?? '',
    country: place.country,
    language,
    device: device.type,
    time: String(arrival.at),
    visit: randomUUID(),
  }
  const spoken = voiceIn(arrival.languages, worn)
  const outbox = server.map(({ id }) => ({ kind: HIT, topic: id, payload: visit }))
  if (asked.length > 0) {
    const ask = (address: string) => {
      const token = seals.seal(codeId, { kind: 'onward', visit, goesTo: address }, arrival.at)
      return consentPage(consent, address, token, spoken)
    }
    return { outbox, page: ask }
  }
  const fire = (address: string) => lightPage(page, visit, address, spoken)
  return { outbox, page: page.length > 0 ? fire : null }
}

/**
 * Goes on after a visitor was asked: to the light page with the tags that may fire, or straight to where the visit
 * leads; null where the question lies too long ago, or the code leads nowhere any more.
 */
export function continueAfterPage(
  { seals }: OnTheWayParts,
  { fired, codeId, compiled }: Posting,
  { onward, agreed }: Pick<Given, 'onward' | 'agreed'>,
  spoken: Voice,
  now: number,
): Rendered | { goOn: string } | null {
  const sealed = onward === null ? null : seals.open(codeId, 'onward', onward, now)
  if (!sealed || compiled.code.settings.state !== 'live' || compiled.route.settings.state !== 'live')
    return null
  const tags = fired ? [...fired.page, ...(agreed ? fired.asked : [])] : []
  return tags.length > 0 ? lightPage(tags, sealed.visit, sealed.goesTo, spoken) : { goOn: sealed.goesTo }
}
