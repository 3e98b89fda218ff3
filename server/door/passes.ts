import { randomBytes } from 'node:crypto'
import { isSigned, signatureOf } from './signature.ts'

/** The query name of a pass. It is taken off before a query is carried on. */
export const PASS_NAME = 'flimbo-pass'
/** How long a pass is good for. */
export const PASS_MS = 5 * 60_000

/**
 * A pass says in the address, instead of a cookie, that the password of one code was given. It is signed with
 * a key that only this process has and good for five minutes, so an address passed on soon asks again.
 */
export interface Passes {
  issue(codeId: number, passwordHash: string, now: number): string
  isGood(pass: string, codeId: number, passwordHash: string, now: number): boolean
}

export function passes(key: Buffer = randomBytes(32)): Passes {
  // A changed password makes every pass for the old one worthless.
  const signed = (until: string, codeId: number, passwordHash: string) => `${until}~${String(codeId)}~${passwordHash}`
  return {
    issue(codeId, passwordHash, now) {
      const until = (now + PASS_MS).toString(36)
      return `${until}.${signatureOf(key, signed(until, codeId, passwordHash))}`
    },
    isGood(pass, codeId, passwordHash, now) {
      const [until = '', signature = '', ...more] = pass.split('.')
      return more.length === 0 && isSigned(key, signed(until, codeId, passwordHash), signature) && Number.parseInt(until, 36) >= now
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
