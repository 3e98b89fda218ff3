import { tables } from '../database/index.ts'
import { UNSUBSCRIBE_PATH, type EndOfMails } from '../mail/index.ts'
import { idSigner } from '../signing/index.ts'

/** Links by which somebody ends a watch that they are mailed for, without signing in. */
export function unsubscribeLinks(key: Buffer) {
  const signer = idSigner(key, ' unsubscribe')
  return {
    pathOf: (watchId: number): string => UNSUBSCRIBE_PATH + signer.signed(watchId),
    endOf: (token: string): EndOfMails | null => {
      const id = signer.read(token)
      return id === null ? null : (manager) => manager.delete(tables.watches, { id })
    },
  }
}
export type UnsubscribeLinks = ReturnType<typeof unsubscribeLinks>
