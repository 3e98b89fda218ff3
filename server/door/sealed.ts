import { randomBytes } from 'node:crypto'
import type { VisitValues } from '@flimbo/core/visitTags'
import { isSigned, signatureOf } from './signature.ts'

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
  const signed = (codeId: number, content: string) => `${String(codeId)}~${content}`
  return {
    seal(codeId, visit, now) {
      const content = Buffer.from(JSON.stringify({ until: now + SEALED_MS, visit })).toString('base64url')
      return `${content}.${signatureOf(key, signed(codeId, content))}`
    },
    open(codeId, sealed, now) {
      const [content = '', signature = '', ...more] = sealed.split('.')
      if (more.length > 0 || !isSigned(key, signed(codeId, content), signature)) return null
      // Only `seal` knows the key, and this is what it wrote.
      const { until, visit } = JSON.parse(Buffer.from(content, 'base64url').toString('utf8')) as { until: number; visit: VisitValues }
      return until >= now ? visit : null
    },
  }
}
