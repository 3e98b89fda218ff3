import { joinNumbers, shortSigner, splitNumbers } from '../signing/index.ts'

/** The visit of a page: which scan was shown it, and what decided that. */
export interface PageVisit {
  readonly codeId: number
  readonly pageId: number
  readonly scanId: number
  readonly routeId: number
  readonly revisionId: number
  /** UTC milliseconds. */
  readonly at: number
  /** Whether the visitor had scanned the code before that day: what is shown to them stays so in another language. */
  readonly repeat: boolean
  /** Why its scan is kept apart; empty where it is a person's. */
  readonly apart: string
}

/** How long what happens on a page counts for the scan that was shown it: a page may lie in a pocket over night. */
export const VISIT_MS = 48 * 3_600_000
/** Names the visit of a page in its links, in place of a cookie, signed with a key that only the front doors have. */
export interface PageVisits {
  issue(visit: PageVisit): string
  /** The visit that a token names; null where it is made up, of another code, or older than it lasts. */
  read(token: string, codeId: number, now: number, lastsMs?: number): PageVisit | null
}

export function pageVisits(key: Buffer): PageVisits {
  const signer = shortSigner(key)
  return {
    issue({ codeId, pageId, scanId, routeId, revisionId, at, repeat, apart }) {
      const text = joinNumbers([codeId, pageId, scanId, routeId, revisionId, at, repeat ? 1 : 0])
      return signer.signed(`${text}.${apart}`)
    },
    read(token, codeId, now, lastsMs = VISIT_MS) {
      const signed = signer.read(token)
      if (signed === null) return null
      const [code = 0, pageId = 0, scanId = 0, routeId = 0, revisionId = 0, at = 0, again = 0] =
        splitNumbers(signed)
      const apart = signed.slice(signed.lastIndexOf('.') + 1)
      const isGood = code === codeId && at <= now && now - at <= lastsMs
      const repeat = again === 1
      return isGood ? { codeId, pageId, scanId, routeId, revisionId, at, repeat, apart } : null
    },
  }
}
