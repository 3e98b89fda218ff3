import { randomBytes } from 'node:crypto'
import { isSameText, signatureOf } from './signature.ts'

/** What the key of a form tells: when the form was shown. */
export interface FormKey {
  /** UTC milliseconds. */
  readonly at: number
  /** Different for each time a form is shown, and the same however often that one is sent. */
  readonly nonce: string
}

/** How long a form may lie open before it is sent. */
export const FORM_MS = 30 * 24 * 3_600_000
const NONCE_BYTES = 12
/** 132 bits. */
const SIGNATURE_SIGNS = 22

/** Signs what forms are sent with, so that nobody answers a form that they were not shown. */
export interface FormKeys {
  /** @param shown what the form stands on: the token of its page, and its part */
  issue(shown: string, at: number): string
  /** What a key tells; null where it is made up, of another form, or too old. */
  read(key: string, shown: string, now: number): FormKey | null
  /** A name that only the front doors can have given, such as that of a file that was sent; null where they did not. */
  sign(name: string): string
  unsign(text: string): string | null
}

export function formKeys(key: Buffer): FormKeys {
  const sign = (text: string) => signatureOf(key, text).slice(0, SIGNATURE_SIGNS)
  const unsign = (text: string, more = '') => {
    const end = text.lastIndexOf('.')
    const signed = text.slice(0, Math.max(0, end))
    return end > 0 && isSameText(text.slice(end + 1), sign(signed + more)) ? signed : null
  }
  return {
    issue(shown, at) {
      const signed = `${at.toString(36)}.${randomBytes(NONCE_BYTES).toString('base64url')}`
      return `${signed}.${sign(`${signed} ${shown}`)}`
    },
    read(given, shown, now) {
      const [moment = '', nonce = ''] = unsign(given, ` ${shown}`)?.split('.') ?? []
      const at = Number.parseInt(moment, 36)
      return nonce !== '' && at <= now && now - at <= FORM_MS ? { at, nonce } : null
    },
    sign: (name) => `${name}.${sign(`file ${name}`)}`,
    unsign(text) {
      const end = text.lastIndexOf('.')
      const name = text.slice(0, Math.max(0, end))
      return end > 0 && isSameText(text.slice(end + 1), sign(`file ${name}`)) ? name : null
    },
  }
}
