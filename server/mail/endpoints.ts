import { mailApi } from '@flimbo/core/mail'
import { missing, mount, Refusal, type Mounts } from '../api/index.ts'
import type { MailServer } from '../config/index.ts'
import { tables, type Database, type MailRow } from '../database/index.ts'
import type { Outbox } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { StandIns } from '../standins/index.ts'
import { MAIL, MAIL_TOPIC } from './insert.ts'
import { mailLists } from './mailLists.ts'
import { enqueueMail, queueMail } from './queue.ts'

interface Parts {
  readonly database: Database
  readonly live: LiveHub
  readonly outbox: Outbox
  /** The mail server that is used by now; null while there is none. */
  readonly mailServer: () => MailServer | null
  readonly config: { readonly mail: MailServer | null }
  readonly standIns: StandIns | null
}

/** The endpoints of mail, as `core`’s contract describes them. */
export function mailEndpoints(
  mounts: Mounts,
  { database, live, outbox, mailServer, config, standIns }: Parts,
): void {
  const { read } = database
  const lists = mailLists(read)

  const rowOf = async (id: number): Promise<MailRow> => {
    const row = await read.findOneBy(tables.mails, { id })
    if (!row) throw missing('mail')
    return row
  }

  mount(mounts, mailApi.setup, async ({ who }) => {
    const server = mailServer()
    return {
      server: server && {
        host: server.host,
        port: server.port,
        from: server.from,
        bounce: server.bounce,
        isStandIn: config.mail === null,
      },
      counts: await lists.counts(who.workspace.id),
    }
  })

  mount(mounts, mailApi.list, async ({ query: { page, pageSize, order, state }, who }) => {
    const found = await lists.page(who.workspace.id, state, order, pageSize, page * pageSize)
    return { ...found, page, pageSize }
  })

  mount(mounts, mailApi.retry, async ({ params: { id }, who }) => {
    const row = await rowOf(id)
    if (row.state === 'sent') throw new Refusal('taken', 'This mail was sent already.')
    if (row.state === 'unconfirmed')
      throw new Refusal('taken', 'This mail waits until its address is confirmed.')
    outbox.tryNow(MAIL, who.workspace.id, MAIL_TOPIC)
    await database.write(async (manager) => {
      await manager.delete(tables.outbox, { id: row.outboxId ?? 0, kind: MAIL })
      await enqueueMail(manager, row, Date.now())
    })
    live.tell(who.workspace.id, { type: 'mails' })
  })

  mount(mounts, mailApi.discard, async ({ params: { id }, who }) => {
    const row = await rowOf(id)
    if (row.state === 'sent')
      throw new Refusal('taken', 'This mail was sent already. It stays in the list of what was sent.')
    await database.write(async (manager) => {
      await manager.delete(tables.outbox, { id: row.outboxId ?? 0, kind: MAIL })
      await manager.delete(tables.mails, { id })
    })
    live.tell(who.workspace.id, { type: 'mails' })
  })

  mount(mounts, mailApi.test, async ({ who }) => {
    if (!mailServer())
      throw new Refusal(
        'taken',
        'Mail is not set up: set FLIMBO_SMTP_HOST and FLIMBO_SMTP_FROM on the server.',
      )
    const id = await database.write((manager) =>
      queueMail(manager, {
        workspaceId: who.workspace.id,
        personId: who.person.id,
        kind: 'test',
        at: Date.now(),
      }),
    )
    live.tell(who.workspace.id, { type: 'mails' })
    return { id }
  })

  mount(mounts, mailApi.received, async () => {
    if (!standIns) return { rows: [], manner: 'take' as const }
    const { rows, manner } = await standIns.mails()
    return { rows: [...rows], manner }
  })

  mount(mounts, mailApi.manner, async ({ body: { manner } }) => {
    await standIns?.setManner(manner)
  })
}
