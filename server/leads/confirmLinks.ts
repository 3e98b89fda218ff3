import { shortSigner } from '../signing/index.ts'

/** What the path of a link that confirms a mail address begins with. */
export const CONFIRM_PATH = '/~confirm/'
const PURPOSE = ' confirm'

/** Links by which somebody confirms their mail address: nobody but who was sent one can make it. */
export function confirmLinks(key: Buffer) {
  const signer = shortSigner(key)
  return {
    pathOf: (leadId: number): string => CONFIRM_PATH + signer.signed(leadId.toString(36), PURPOSE),
    /** The lead that a path is for; null where it was made up. */
    leadOf(path: string): number | null {
      const text = signer.read(path.slice(CONFIRM_PATH.length), PURPOSE)
      return text === null ? null : Number.parseInt(text, 36)
    },
  }
}
export type ConfirmLinks = ReturnType<typeof confirmLinks>
