import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import type { VisitValues } from '@flimbo/core/visitTags'

/** How long a visitor may think it over before the scan is decided anew. */
export const SEALED_MS = 30 * 60_000

/**
 * Keeps what was decided in the page that asks a visitor whether tags may fire: the scan is on disk by then,
 * and is neither decided nor counted a second time. Signed with a key that only this process has, so that
 * nobody can make the front door lead where no manager said.
 */
export interface Seals {
  seal(codeId: number, visit: VisitValues, now: number): string
  /** What was sealed for this code; null where it was tampered with, or lies too long ago. */
  open(codeId: number, sealed: string, now: number): VisitValues | null
}

export function seals(key: Buffer = randomBytes(32)): Seals {
  const sign = (codeId: number, content: string) => createHmac('sha256', key).update(`${String(codeId)}~${content}`).digest()
  return {
    seal(codeId, visit, now) {
      const content = Buffer.from(JSON.stringify({ until: now + SEALED_MS, visit })).toString('base64url')
      return `${content}.${sign(codeId, content).toString('base64url')}`
    },
    open(codeId, sealed, now) {
      const [content = '', signature = '', ...more] = sealed.split('.')
      const [given, expected] = [Buffer.from(signature, 'base64url'), sign(codeId, content)]
      if (more.length > 0 || given.length !== expected.length || !timingSafeEqual(given, expected)) return null
      // Only `seal` knows the key, and this is what it wrote.
      const { until, visit } = JSON.parse(Buffer.from(content, 'base64url').toString('utf8')) as { until: number; visit: VisitValues }
      return until >= now ? visit : null
    },
  }
}
