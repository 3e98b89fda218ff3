import { MAIL_STATES, type Mail, type MailState } from '@flimbo/core/mail'
import { IsNull, type EntityManager, type SelectQueryBuilder } from 'typeorm'
import { tables, type MailRow } from '../database/index.ts'

/** What stands in the outbox of a mail that was not sent yet. */
interface Queued {
  readonly id: number
  readonly attempts: number | null
  readonly nextAt: number | null
  readonly fault: string | null
  /** Null where it has left the outbox. */
  readonly entryId: number | null
}

/** A mail that waits without a next try was given up. */
const GIVEN_UP = "m.state = 'waiting' AND o.id IS NOT NULL AND o.nextAt IS NULL"

const conditionOf: Readonly<Record<MailState, string>> = {
  waiting: `m.state = 'waiting' AND NOT (${GIVEN_UP})`,
  sent: "m.state = 'sent'",
  refused: "m.state = 'refused'",
  'given-up': GIVEN_UP,
  unconfirmed: "m.state = 'unconfirmed'",
}

function mailOf(row: MailRow, queued: Queued | undefined): Mail {
  const { id, kind, at, address, subject, settledAt, campaignId, leadId } = row
  const isGivenUp = row.state === 'waiting' && typeof queued?.entryId === 'number' && queued.nextAt === null
  return {
    id,
    kind,
    at,
    address,
    subject,
    settledAt,
    campaignId,
    leadId,
    state: isGivenUp ? 'given-up' : row.state,
    attempts: queued?.attempts ?? 0,
    nextAt: queued?.nextAt ?? null,
    reply: row.state === 'waiting' ? (queued?.fault ?? '') : row.reply,
  }
}

/** Mails, with how far each is. */
export function mailLists(read: EntityManager) {
  const mails = (where: string, values: Record<string, unknown>): SelectQueryBuilder<MailRow> =>
    read
      .createQueryBuilder(tables.mails, 'm')
      .leftJoin(tables.outbox.options.name, 'o', 'o.id = m.outboxId')
      .where(where, values)
  const mailsOf = (workspaceId: number) => mails('m.workspaceId = :workspaceId', { workspaceId })

  async function whole(rows: readonly MailRow[]): Promise<Mail[]> {
    const queued = await mails('m.id IN (:...ids)', { ids: [0, ...rows.map(({ id }) => id)] })
      .select(['m.id AS id', 'o.id AS "entryId"', 'o.attempts AS attempts', 'o.nextAt AS "nextAt"'])
      .addSelect('o.fault', 'fault')
      .getRawMany<Queued>()
    const byId = new Map(queued.map((each) => [each.id, each]))
    return rows.map((row) => mailOf(row, byId.get(row.id)))
  }

  return {
    async page(
      workspaceId: number,
      state: MailState | undefined,
      order: 'asc' | 'desc',
      limit: number,
      offset: number,
    ): Promise<{ rows: Mail[]; total: number }> {
      const found = mailsOf(workspaceId)
      if (state !== undefined) found.andWhere(conditionOf[state])
      const direction = order === 'asc' ? 'ASC' : 'DESC'
      const [rows, total] = await found
        .orderBy('m.at', direction)
        .addOrderBy('m.id', direction)
        .offset(offset)
        .limit(limit)
        .getManyAndCount()
      return { rows: await whole(rows), total }
    },
    /** How many are in each state. */
    async counts(workspaceId: number): Promise<Record<MailState, number>> {
      const found = mailsOf(workspaceId).select([])
      for (const state of MAIL_STATES)
        found.addSelect(`count(CASE WHEN ${conditionOf[state]} THEN 1 END)`, state)
      // One of each state there is, whether or not there is any mail.
      return (await found.getRawOne<Record<MailState, number>>()) as Record<MailState, number>
    },
    /** What somebody who answered was mailed, in its order; what others were told of them is not among it. */
    async ofLead(leadId: number): Promise<Mail[]> {
      const rows = await read.find(tables.mails, {
        where: { leadId, personId: IsNull() },
        order: { id: 'ASC' },
      })
      return whole(rows)
    },
  }
}
