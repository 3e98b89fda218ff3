import { randomBytes } from 'node:crypto'
import type Sqlite from 'better-sqlite3'
import type { MailRow } from '../database/index.ts'

/** Mails in the outbox, which is one queue for each workspace. */
export const MAIL = 'mail'
export const MAIL_TOPIC = 'mail'

/** What an entry of the outbox tells of its mail. */
export interface MailEntry {
  readonly mailId: number
}

/** A mail that is to be written and sent. */
export type NewMail = Pick<MailRow, 'workspaceId' | 'kind' | 'at'> &
  Partial<Pick<MailRow, 'campaignId' | 'leadId' | 'personId' | 'watchId' | 'payload' | 'state'>>

/** Nobody can guess it, and it stays the same however often the mail is sent. */
export const messageKey = () => randomBytes(12).toString('hex')

/** Puts mails into the queue in the transaction that is under way, such as that of the lead they are about. */
export function mailInserter(database: Sqlite.Database) {
  const enqueue = database.prepare(
    `INSERT INTO outbox (workspaceId, kind, topic, at, isTest, payload, attempts, nextAt, fault)
     VALUES (?, '${MAIL}', '${MAIL_TOPIC}', ?, 0, ?, 0, ?, '')`,
  )
  const insert = database.prepare(
    `INSERT INTO mails (workspaceId, campaignId, leadId, personId, watchId, kind, messageKey, payload, at, outboxId,
       address, subject, state, settledAt, reply)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, NULL, '', '', ?, NULL, '')`,
  )
  const link = database.prepare("UPDATE mails SET outboxId = ?, state = 'waiting' WHERE id = ?")
  const begin = (mailId: number, workspaceId: number, now: number) => {
    const entry: MailEntry = { mailId }
    link.run(enqueue.run(workspaceId, now, JSON.stringify(entry), now).lastInsertRowid, mailId)
  }
  return {
    add(mail: NewMail): void {
      const { workspaceId, kind, at, state = 'waiting' } = mail
      const id = insert.run(
        workspaceId,
        mail.campaignId ?? null,
        mail.leadId ?? null,
        mail.personId ?? null,
        mail.watchId ?? null,
        kind,
        messageKey(),
        JSON.stringify(mail.payload ?? {}),
        at,
        state,
      ).lastInsertRowid
      if (state === 'waiting') begin(Number(id), workspaceId, at)
    },
    /** Sends one that waited for something. */
    begin,
  }
}
