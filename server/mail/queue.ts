import type { EntityManager } from 'typeorm'
import { insertedId, tables, type MailRow } from '../database/index.ts'
import { MAIL, MAIL_TOPIC, messageKey, type MailEntry, type NewMail } from './insert.ts'

/** Puts a mail into the queue from the office. @returns its id */
export async function queueMail(manager: EntityManager, mail: NewMail): Promise<number> {
  const { state = 'waiting' } = mail
  const id = insertedId(
    await manager.insert(tables.mails, {
      campaignId: null,
      leadId: null,
      personId: null,
      watchId: null,
      ...mail,
      // TypeORM wants to know the parts of a value it only writes as JSON.
      payload: (mail.payload ?? {}) as never,
      messageKey: messageKey(),
      outboxId: null,
      address: '',
      subject: '',
      state,
      settledAt: null,
      reply: '',
    }),
  )
  if (state === 'waiting') await enqueueMail(manager, { id, workspaceId: mail.workspaceId }, mail.at)
  return id
}

/** Puts a mail that is there into the queue, to be sent at once. */
export async function enqueueMail(
  manager: EntityManager,
  { id, workspaceId }: Pick<MailRow, 'id' | 'workspaceId'>,
  now: number,
): Promise<void> {
  const entry: MailEntry = { mailId: id }
  const outboxId = insertedId(
    await manager.insert(tables.outbox, {
      workspaceId,
      kind: MAIL,
      topic: MAIL_TOPIC,
      at: now,
      isTest: false,
      payload: entry as never,
      attempts: 0,
      nextAt: now,
      fault: '',
    }),
  )
  await manager.update(tables.mails, { id }, { outboxId, state: 'waiting', settledAt: null })
}
