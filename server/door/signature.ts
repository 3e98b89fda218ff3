import { createHmac, timingSafeEqual } from 'node:crypto'

/** Signs a text with a key. */
export function signatureOf(key: Buffer, text: string): string {
  return createHmac('sha256', key).update(text).digest('base64url')
}

/** Whether a signature is that of a text; it takes as long whether much or little of it is right. */
export function isSigned(key: Buffer, text: string, signature: string): boolean {
  const [given, expected] = [Buffer.from(signature), Buffer.from(signatureOf(key, text))]
  return given.length === expected.length && timingSafeEqual(given, expected)
}
