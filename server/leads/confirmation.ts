import type Sqlite from 'better-sqlite3'
import { mailInserter } from '../mail/insert.ts'
import { retryWhenLockedSync } from '../sqlite/index.ts'

/** An address that its owner confirmed, or did not in time. */
export interface Confirmation {
  readonly leadId: number
  /** UTC milliseconds. */
  readonly at: number
}

/** Stores that a mail address was confirmed, once, and has what waited for it sent, in one transaction. */
export function confirmationKeeper(database: Sqlite.Database) {
  const mails = mailInserter(database)
  const confirm = database.prepare(
    `UPDATE leads SET confirmedAt = ?, version = version + 1
     WHERE id = ? AND confirmedAt IS NULL AND confirmBy >= ?`,
  )
  const findWaiting = database.prepare(
    "SELECT id, workspaceId FROM mails WHERE leadId = ? AND state = 'unconfirmed'",
  )
  const keep = database.transaction(({ leadId, at }: Confirmation) => {
    if (confirm.run(at, leadId, at).changes === 0) return
    for (const { id, workspaceId } of findWaiting.all(leadId) as { id: number; workspaceId: number }[])
      mails.begin(id, workspaceId, at)
  })
  return (confirmation: Confirmation): void => {
    retryWhenLockedSync(() => {
      keep.immediate(confirmation)
    })
  }
}
