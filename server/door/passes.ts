import { randomBytes } from 'node:crypto'
import { isSigned, signatureOf } from '../signing/index.ts'

/** The query name of a pass. It is taken off before a query is carried on. */
export const PASS_NAME = 'flimbo-pass'
/** How long a pass is good for. */
export const PASS_MS = 5 * 60_000

/**
 * A pass says in the address, instead of a cookie, that the password of one code was given, and for which scan. It is
 * signed with a key that only the front doors have and good for five minutes, so an address passed on soon asks again.
 */
export interface Passes {
  issue(codeId: number, passwordHash: string, scan: string, now: number): string
  /** The scan that a pass was given for; null where it is not good. */
  scanOf(pass: string, codeId: number, passwordHash: string, now: number): string | null
}

/** Passes of visitors who gave a password: signed, so that none has to be stored. */
export function createPasses(key: Buffer = randomBytes(32)): Passes {
  // A changed password makes every pass for the old one worthless.
  const signed = (until: string, scan: string, codeId: number, passwordHash: string) =>
    `${until}~${scan}~${String(codeId)}~${passwordHash}`
  return {
    issue(codeId, passwordHash, scan, now) {
      const until = (now + PASS_MS).toString(36)
      return `${until}.${scan}.${signatureOf(key, signed(until, scan, codeId, passwordHash))}`
    },
    scanOf(pass, codeId, passwordHash, now) {
      const [until = '', scan = '', signature = '', ...more] = pass.split('.')
      const isGood =
        more.length === 0 &&
        isSigned(key, signed(until, scan, codeId, passwordHash), signature) &&
        Number.parseInt(until, 36) >= now
      return isGood ? scan : null
    },
  }
}

/** Takes the pass out of a query; everything else stays as it was written. */
export function takePass(query: string): { pass: string; rest: string } {
  if (!query.includes(PASS_NAME)) return { pass: '', rest: query }
  let pass = ''
  const rest = query.split('&').filter((pair) => {
    if (!pair.startsWith(`${PASS_NAME}=`)) return true
    pass = pair.slice(PASS_NAME.length + 1)
    return false
  })
  return { pass, rest: rest.join('&') }
}
