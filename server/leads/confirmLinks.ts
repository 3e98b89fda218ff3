import { idSigner } from '../signing/index.ts'

/** What the path of a link that confirms a mail address begins with. */
export const CONFIRM_PATH = '/~confirm/'

/** Links by which somebody confirms their mail address: nobody but who was sent one can make it. */
export function confirmLinks(key: Buffer) {
  const signer = idSigner(key, ' confirm')
  return {
    pathOf: (leadId: number): string => CONFIRM_PATH + signer.signed(leadId),
    /** The lead that a path is for; null where it was made up. */
    leadOf: (path: string): number | null => signer.read(path.slice(CONFIRM_PATH.length)),
  }
}
export type ConfirmLinks = ReturnType<typeof confirmLinks>
