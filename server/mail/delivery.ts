import { tables, type Database, type MailRow } from '../database/index.ts'
import type { Delivery } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Letter, Mailer } from './mailer.ts'
import { MAIL, type MailEntry } from './insert.ts'

/** Writes the mails of one kind, when their turn has come; null where there is nothing to tell any more. */
export type WriteLetter = (mail: MailRow) => Promise<Letter | null>
export type LetterWriters = Readonly<Record<MailRow['kind'], WriteLetter>>

interface Parts {
  readonly database: Database
  readonly live: Pick<LiveHub, 'tell'>
  /** What carries mails away by now; null while mail is not set up. */
  readonly mailer: () => Mailer | null
  readonly writers: LetterWriters
}

/**
 * Sends mails out of the outbox. That one was sent is stored after the mail server took it: should the office end in
 * between, it is sent a second time under the same Message-ID, by which mail programs show it once.
 */
export function mailDelivery({ database, live, mailer, writers }: Parts): Delivery {
  const { read } = database
  const change = async (mail: MailRow, set: Partial<MailRow>): Promise<void> => {
    await database.writeAside((manager) => manager.update(tables.mails, { id: mail.id }, set as never))
    live.tell(mail.workspaceId, { type: 'mails' })
  }

  async function deliver(by: Mailer, mailId: number): Promise<string> {
    const mail = await read.findOneBy(tables.mails, { id: mailId, state: 'waiting' })
    const letter = mail && (await writers[mail.kind](mail))
    // Whoever it is about was erased, or whoever it is for is gone.
    if (!mail || !letter) {
      await database.writeAside((manager) => manager.delete(tables.mails, { id: mailId, state: 'waiting' }))
      return ''
    }
    const { subject, to } = letter
    if (mail.subject === '') await change(mail, { subject, address: to.address })
    const { kind, reply } = await by.send(letter, mail.messageKey, mail.at)
    if (kind === 'failed') return reply
    await change(mail, { state: kind, reply, settledAt: Date.now() })
    return ''
  }

  return {
    kind: MAIL,
    open() {
      const by = mailer()
      if (!by) return Promise.resolve(null)
      // Only this room writes entries of this kind.
      return Promise.resolve(({ payload }) => deliver(by, (payload as MailEntry).mailId))
    },
  }
}
