import { isSigned, keyFor, signatureOf } from '../signing/index.ts'

/**
 * Rehearsed scans: the office may ask the front door as if it were a phone somewhere else. Such a
 * request carries a signature that only this installation can make, names the address it pretends to come
 * from, and is never counted.
 */
export interface Rehearsals {
  readonly key: Buffer
}

/** Signs and knows the requests of test scans, which are never counted. */
export function rehearsals(secret: string): Rehearsals {
  return { key: keyFor('rehearsal', secret) }
}

const VALID_MS = 60_000

/** The header value that makes a request a rehearsal, good for a minute. */
export function rehearsalHeader(by: Rehearsals, address: string, now: number): string {
  const content = `${String(now + VALID_MS)}~${address}`
  return `${content}~${signatureOf(by.key, content)}`
}

/** Reads that header; null where it is absent, forged or too old. */
export function rehearsalOf(by: Rehearsals, header: string, now = Date.now()): { address: string } | null {
  if (header === '') return null
  const [until = '', address = '', signature = ''] = header.split('~')
  if (!isSigned(by.key, `${until}~${address}`, signature)) return null
  return Number(until) >= now ? { address } : null
}
