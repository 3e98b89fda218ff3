import { readUrl } from '../api/index.ts'
import type { Hop, Verdict } from './contract.ts'

/** Bounds of one check. */
export const CHECK_LIMITS = { hops: 10, bytes: 262_144, ms: 15_000 } as const

/** How the following of an address ended. */
export type Ending =
  | { readonly kind: 'answered' }
  | {
      readonly kind:
        | 'loop'
        | 'too-many-hops'
        | 'too-slow'
        | 'unreachable'
        | 'insecure'
        | 'forbidden-address'
        | 'odd-redirect'
    }

/** The tags an address should still carry at its end, by their names. */
export type WantedTags = readonly (readonly [name: string, value: string])[]

/** Names of the tags whose exact value the query of an address does not have. */
export function lostTags(address: string, wanted: WantedTags): string[] {
  const url = readUrl(address)
  return wanted
    .filter(([name, value]) => !url?.searchParams.getAll(name).includes(value))
    .map(([name]) => name)
}

/**
 * Judges what following a destination came to. Statuses are those of RFC 9110: 2xx is fine, 401 and
 * 403 are refusals, 404 and 410 mean the page is gone, everything else that is no redirect is broken.
 */
export function judge(
  hops: readonly Hop[],
  ending: Ending,
  wanted: WantedTags,
): { verdict: Verdict; status: number | null; lost: string[] } {
  const last = hops.at(-1)
  const status = last?.status ?? null
  if (ending.kind !== 'answered') return { verdict: ending.kind, status, lost: [] }
  if (status === null) return { verdict: 'unreachable', status, lost: [] }
  if (status === 401 || status === 403) return { verdict: 'refused', status, lost: [] }
  if (status === 404 || status === 410) return { verdict: 'not-found', status, lost: [] }
  if (status < 200 || status > 299) return { verdict: 'broken', status, lost: [] }
  const lost = lostTags(last?.address ?? '', wanted)
  return { verdict: lost.length > 0 ? 'tags-lost' : 'fine', status, lost }
}

/** Whether people still arrive: a destination that only drops its tags does not fail. */
export function isFailure(verdict: Verdict): boolean {
  return verdict !== 'fine' && verdict !== 'tags-lost'
}

const host = (address: string | undefined) => readUrl(address ?? '')?.host ?? 'the destination'

/** A check in one sentence a person can act on. */
export function checkSentence({
  verdict,
  status,
  hops,
  lost,
  ms,
}: {
  verdict: Verdict
  status: number | null
  hops: readonly Hop[]
  lost: readonly string[]
  ms: number
}): string {
  const last = hops.at(-1)
  const at = host(last?.address)
  switch (verdict) {
    case 'fine': {
      const redirects = hops.length - 1
      const secure = last?.address.startsWith('http:')
        ? ' It is not encrypted: use https where the site has it.'
        : ''
      return `Answers in ${String(ms)} ms${redirects === 0 ? '' : ` after ${String(redirects)} ${redirects === 1 ? 'redirect' : 'redirects'}`}, with every tag.${secure}`
    }
    case 'tags-lost':
      return `${at} answers, but ${lost.join(', ')} ${lost.length === 1 ? 'is' : 'are'} gone from the final address: visits from this code cannot be told apart. Ask whoever runs the site to keep the query when redirecting, or lead straight to the final page.`
    case 'not-found':
      return `${at} has no such page (${String(status)}). Correct the destination.`
    case 'refused':
      return `${at} turns visitors away (${String(status)}). Lead to a page that is open to everybody.`
    case 'broken':
      return `${at} answers with an error (${String(status)}). Try again later, or lead somewhere else meanwhile.`
    case 'loop':
      return `${at} redirects in a circle, so nobody arrives. Lead to the final page instead.`
    case 'too-many-hops':
      return `After ${String(CHECK_LIMITS.hops)} redirects there is still no page. Phones give up too: lead closer to the final page.`
    case 'too-slow':
      return `${at} did not answer within ${String(CHECK_LIMITS.ms / 1000)} seconds. Visitors do not wait that long.`
    case 'unreachable':
      return `${at} cannot be reached: there is no such site, or it does not answer. Check the spelling.`
    case 'insecure':
      return `${at} has no valid certificate, so phones warn before they open it. Have it renewed.`
    case 'forbidden-address':
      return `${at} lies inside a private network, where phones outside of it cannot go. Lead to a public address.`
    case 'odd-redirect':
      return `${at} redirects to something that is no web page. Lead to the final page instead.`
  }
}
