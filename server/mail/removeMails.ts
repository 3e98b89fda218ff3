import { In, type EntityManager } from 'typeorm'
import { tables, type Database } from '../database/index.ts'
import { MAIL } from './insert.ts'

/** Removes all mails about some leads, those that still wait too. */
export async function removeMailsOf(manager: EntityManager, leadIds: readonly number[]): Promise<void> {
  const rows = await manager.find(tables.mails, {
    select: { id: true, outboxId: true },
    where: { leadId: In([...leadIds]) },
  })
  const entries = rows.flatMap(({ outboxId }) => (outboxId === null ? [] : [outboxId]))
  if (entries.length > 0) await manager.delete(tables.outbox, { id: In(entries), kind: MAIL })
  if (rows.length > 0) await manager.delete(tables.mails, { leadId: In([...leadIds]) })
}

/** Removes mails that waited for an address to be confirmed which was not in time; at a moment (UTC ms). */
export async function dropUnconfirmed(database: Pick<Database, 'writeAside'>, now: number): Promise<void> {
  await database.writeAside((manager) =>
    manager
      .createQueryBuilder()
      .delete()
      .from(tables.mails)
      .where("state = 'unconfirmed' AND leadId IN (SELECT id FROM leads WHERE confirmBy < :now)", { now })
      .execute(),
  )
}
