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

/** 132 bits of a signature: nobody tries so many, and addresses stay short. */
const SHORT_SIGNS = 22

/** Signs texts shortly, with the signature behind a dot. What is signed for one purpose is good for no other. */
export function shortSigner(key: Buffer) {
  const sign = (text: string) => signatureOf(key, text).slice(0, SHORT_SIGNS)
  return {
    /** The signature of a text alone. */
    sign,
    /** The text, and its signature for a purpose. */
    signed: (text: string, purpose = '') => `${text}.${sign(text + purpose)}`,
    /** A text that was signed for a purpose; null where it was not. */
    read(given: string, purpose = ''): string | null {
      const end = given.lastIndexOf('.')
      if (end < 0) return null
      const text = given.slice(0, end)
      return isSameText(given.slice(end + 1), sign(text + purpose)) ? text : null
    },
  }
}

/** Signs numbers for one purpose: nobody but who was sent one can give it. */
export function idSigner(key: Buffer, purpose: string) {
  const signer = shortSigner(key)
  return {
    signed: (id: number): string => signer.signed(id.toString(36), purpose),
    /** The number that was signed; null where it was made up. */
    read: (given: string): number | null => {
      const text = signer.read(given, purpose)
      return text === null ? null : Number.parseInt(text, 36)
    },
  }
}
