import { tables } from '../database/index.ts'
import { UNSUBSCRIBE_PATH, type EndOfMails } from '../mail/index.ts'
import { shortSigner } from '../signing/index.ts'

const PURPOSE = ' report mails'

/** Links by which one reader of a mailed report ends that for themselves, without signing in. */
export function mailingEnds(key: Buffer) {
  const signer = shortSigner(key)
  return {
    pathOf: (mailingId: number, address: string): string =>
      UNSUBSCRIBE_PATH +
      signer.signed(Buffer.from(`${String(mailingId)} ${address}`).toString('base64url'), PURPOSE),
    endOf: (token: string): EndOfMails | null => {
      const text = signer.read(token, PURPOSE)
      if (text === null) return null
      const [id = '', address = ''] = Buffer.from(text, 'base64url').toString('utf8').split(' ')
      return async (manager) => {
        const mailing = await manager.findOneBy(tables.reportMailings, { id: Number(id) })
        if (!mailing) return
        const to = mailing.settings.to.filter((each) => each !== address)
        const isOver = to.length === 0
        await manager.update(
          tables.reportMailings,
          { id: mailing.id },
          {
            settings: { ...mailing.settings, to, isPaused: isOver || mailing.settings.isPaused },
            ...(isOver ? { nextAt: null, fault: 'All its readers ended these mails for themselves.' } : {}),
          },
        )
      }
    },
  }
}
export type MailingEnds = ReturnType<typeof mailingEnds>
