import { createHmac, timingSafeEqual } from 'node:crypto'

/** Signs a text with a key. */
export function signatureOf(key: Buffer, text: string): string {
  return createHmac('sha256', key).update(text).digest('base64url')
}

/** Whether two texts are the same; it takes as long whether much or little of them is. */
export function isSameText(given: string, expected: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(expected)]
  return a.length === b.length && timingSafeEqual(a, b)
}

/** Whether a signature is that of a text. */
export function isSigned(key: Buffer, text: string, signature: string): boolean {
  return isSameText(signature, signatureOf(key, text))
}
