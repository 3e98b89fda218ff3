import { joinNumbers, shortSigner, splitNumbers } from '../signing/index.ts'

/** Which scan led somebody to a site. */
export interface Reference {
  readonly codeId: number
  readonly scanId: number
  readonly routeId: number
  /** UTC milliseconds. */
  readonly at: number
  /** So long it is good. */
  readonly hours: number
  /** Why its scan is kept apart; empty where it is a person's. */
  readonly apart: string
}

const HOUR_MS = 3_600_000

/** Names a scan to a site, in the address a redirect leads to, signed with a key that only the front doors have. */
export function references(key: Buffer) {
  const signer = shortSigner(key)
  return {
    issue({ codeId, scanId, routeId, at, hours, apart }: Reference): string {
      return signer.signed(`${joinNumbers([codeId, scanId, routeId, at, hours])}.${apart}`)
    },
    /** The reference that was issued; null where it is made up or no longer good. */
    read(given: string, now: number): Reference | null {
      const signed = signer.read(given)
      if (signed === null) return null
      const [codeId = 0, scanId = 0, routeId = 0, at = 0, hours = 0] = splitNumbers(signed)
      const apart = signed.slice(signed.lastIndexOf('.') + 1)
      return now - at <= hours * HOUR_MS ? { codeId, scanId, routeId, at, hours, apart } : null
    },
  }
}
export type References = ReturnType<typeof references>
