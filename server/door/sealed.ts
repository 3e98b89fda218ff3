import { randomBytes } from 'node:crypto'
import type { VisitValues } from '@flimbo/core/visitTags'
import { isSigned, signatureOf } from '../signing/index.ts'

/** How long a visitor may think it over before the scan is decided anew. */
export const SEALED_MS = 30 * 60_000

/**
 * What a page of the front door keeps for its form: which scan it was answered with, which is on disk by then, or
 * where that scan was to be sent on to once the visitor had said whether tags may fire.
 */
export type Content =
  | { readonly kind: 'asked'; readonly scan: string }
  | { readonly kind: 'onward'; readonly visit: VisitValues; readonly goesTo: string }

/**
 * Keeps what was decided in the page that asks a visitor something, so that it is neither decided nor counted a
 * second time. Signed with a key that only the front doors have: nobody can make one lead where no manager said, or
 * send a form that no page was shown for.
 */
export interface Seals {
  seal(codeId: number, content: Content, now: number): string
  /** What was sealed for this code; null where it was tampered with, or lies too long ago. */
  open<K extends Content['kind']>(
    codeId: number,
    kind: K,
    sealed: string,
    now: number,
  ): Extract<Content, { kind: K }> | null
}

/** Names a scan whose visitor was asked something, so that what follows from it is known again. */
export const scanName = () => randomBytes(9).toString('base64url')

/** Seals what a page is given to send back, so that nothing of it can be made up or kept for too long. */
export function seals(key: Buffer = randomBytes(32)): Seals {
  const signed = (codeId: number, text: string) => `${String(codeId)}~${text}`
  return {
    seal(codeId, content, now) {
      const text = Buffer.from(JSON.stringify({ ...content, until: now + SEALED_MS })).toString('base64url')
      return `${text}.${signatureOf(key, signed(codeId, text))}`
    },
    open(codeId, kind, sealed, now) {
      const [text = '', signature = '', ...more] = sealed.split('.')
      if (more.length > 0 || !isSigned(key, signed(codeId, text), signature)) return null
      // Only `seal` knows the key, and this is what it wrote.
      const content = JSON.parse(Buffer.from(text, 'base64url').toString('utf8')) as Extract<
        Content,
        { kind: typeof kind }
      > & { until: number }
      return content.kind === kind && content.until >= now ? content : null
    },
  }
}
