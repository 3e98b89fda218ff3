import { In } from 'typeorm'
import { isFile } from '@flimbo/core/forms'
import { tables, type Database, type ErasureRow, type LeadRow } from '../database/index.ts'
import { removeMailsOf } from '../mail/index.ts'
import type { AnswerFiles } from './answerFiles.ts'

/** Leads that are erased in one statement. */
const AT_ONCE = 500

/**
 * Erases leads, with their notes, the files that were sent, and mails that were sent or wait. What forms count stays; the
 * log says how many were erased and why, and nothing of whose they were.
 */
export async function eraseLeads(
  { database, files }: { database: Database; files: AnswerFiles },
  rows: readonly Pick<LeadRow, 'id' | 'answers'>[],
  { workspaceId, personId, why }: Pick<ErasureRow, 'workspaceId' | 'personId' | 'why'>,
): Promise<void> {
  const keys = rows.flatMap(({ answers }) =>
    Object.values(answers)
      .filter(isFile)
      .map(({ key }) => key),
  )
  // Files first: should this be stopped in between, the leads are there to be erased again.
  for (const key of keys) await files.remove(key)
  await database.write(async (manager) => {
    for (let i = 0; i < rows.length; i += AT_ONCE) {
      const ids = rows.slice(i, i + AT_ONCE).map(({ id }) => id)
      await removeMailsOf(manager, ids)
      await manager.delete(tables.leadNotes, { leadId: In(ids) })
      await manager.delete(tables.leads, { id: In(ids) })
    }
    await manager.insert(tables.erasures, {
      workspaceId,
      at: Date.now(),
      personId,
      leads: rows.length,
      files: keys.length,
      why,
    })
  })
}
