import { idSigner, shortSigner } from '../signing/index.ts'

/** Where reports are read without signing in. */
export const SHARED_REPORT_PATH = '/shared-report/'
/** How long a password that was given once is good for. */
const PASS_MS = 12 * 60 * 60_000

/** Addresses of shared reports, and passes of those who gave the password. */
export function reportLinks(key: Buffer) {
  const links = idSigner(key, ' report')
  const passes = shortSigner(key)
  return {
    pathOf: (id: number): string => SHARED_REPORT_PATH + links.signed(id),
    /** The number of a link; null where it was made up. */
    idOf: links.read,
    /** A pass is of one link and one password: with another password it is over. */
    pass: (id: number, passwordHash: string, now: number): string =>
      passes.signed((now + PASS_MS).toString(36), ` pass ${String(id)} ${passwordHash}`),
    isPass(given: string, id: number, passwordHash: string, now: number): boolean {
      const until = passes.read(given, ` pass ${String(id)} ${passwordHash}`)
      return until !== null && Number.parseInt(until, 36) > now
    },
  }
}
export type ReportLinks = ReturnType<typeof reportLinks>
