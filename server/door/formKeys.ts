import { randomBytes } from 'node:crypto'
import { shortSigner } from '../signing/index.ts'

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
/** What else is signed, so that none passes for another. */
const [NAME, ANSWERS] = [' name', 'answers ']

/** Signs what forms are sent with, so that nobody answers a form that they were not shown. */
export interface FormKeys {
  /** @param shown what the form stands on: the token of its page, and its part */
  issue(shown: string, at: number): string
  /** What a key tells; null where it is made up, of another form, or too old. */
  read(key: string, shown: string, now: number): FormKey | null
  /** A name that only the front doors can have given, such as that of a file that was sent; null where they did not. */
  sign(name: string): string
  unsign(text: string): string | null
  /** Stands for answers: the same for the same, and nobody else can make it. */
  digest(answers: string): string
}

export function formKeys(key: Buffer): FormKeys {
  const signer = shortSigner(key)
  return {
    issue(shown, at) {
      const text = `${at.toString(36)}.${randomBytes(NONCE_BYTES).toString('base64url')}`
      return signer.signed(text, ` ${shown}`)
    },
    read(given, shown, now) {
      const [moment = '', nonce = ''] = signer.read(given, ` ${shown}`)?.split('.') ?? []
      const at = Number.parseInt(moment, 36)
      return nonce !== '' && at <= now && now - at <= FORM_MS ? { at, nonce } : null
    },
    sign: (name) => signer.signed(name, NAME),
    unsign: (text) => signer.read(text, NAME),
    digest: (answers) => signer.sign(ANSWERS + answers),
  }
}
