import { LessThan, Not } from 'typeorm'
import { anonymise, isFile, type FormSettings } from '@flimbo/core/forms'
import { keptSince } from '@flimbo/core/scans'
import { tables, type Database, type LeadRow } from '../database/index.ts'
import { removeMailsOf } from '../mail/index.ts'
import type { AnswerFiles } from './answerFiles.ts'
import { eraseLeads } from './erase.ts'
import { shownForms } from './formOf.ts'

/** Leads that are looked at together; in between others get their turn. */
const AT_ONCE = 200

interface Parts {
  readonly database: Database
  readonly files: AnswerFiles
}
interface Due {
  readonly pageId: number
  readonly part: string
  readonly then: FormSettings['keptThen']
  /** UTC milliseconds. */
  readonly before: number
}

/** Forms whose answers are kept for some months alone, and the moment before which they are not kept any more. */
async function formsDue({ read }: Database, now: number): Promise<Due[]> {
  const pages = await read.find(tables.pages, { select: { id: true, live: true } })
  return pages.flatMap(({ id, live }) =>
    (live?.parts ?? []).flatMap((part): Due[] =>
      part.kind === 'form' && part.keptMonths !== null && live
        ? [
            {
              pageId: id,
              part: part.id,
              then: part.keptThen,
              before: keptSince(live.zone, now, part.keptMonths),
            },
          ]
        : [],
    ),
  )
}

/** Takes out of leads what may tell whose they are; figures keep the rest. */
async function anonymiseLeads({ database, files }: Parts, rows: readonly LeadRow[]): Promise<void> {
  const formOf = shownForms(database.read)
  for (const row of rows) {
    const { questions } = await formOf(row.pageRevisionId, row.part)
    for (const { key } of Object.values(row.answers).filter(isFile)) await files.remove(key)
    await database.write(async (manager) => {
      await removeMailsOf(manager, [row.id])
      await manager.delete(tables.leadNotes, { leadId: row.id })
      await manager.update(
        tables.leads,
        { id: row.id },
        {
          answers: anonymise(questions, row.answers),
          consents: [],
          title: '',
          search: '',
          email: '',
          phone: '',
          visitor: '',
          version: row.version + 1,
        },
      )
    })
  }
}

/**
 * Deletes or anonymises answers that their forms do not keep any longer.
 * @returns how many leads were
 */
export async function keepLeads(parts: Parts, now: number): Promise<number> {
  const { database } = parts
  let done = 0
  for (const { pageId, part, then, before } of await formsDue(database, now)) {
    for (;;) {
      // What is anonymised has no visitor any more.
      const rows = await database.read.find(tables.leads, {
        where: { pageId, part, at: LessThan(before), ...(then === 'delete' ? {} : { visitor: Not('') }) },
        order: { id: 'ASC' },
        take: AT_ONCE,
      })
      const [first] = rows
      if (!first) break
      if (then === 'delete')
        await eraseLeads(parts, rows, { workspaceId: first.workspaceId, personId: null, why: 'retention' })
      else await anonymiseLeads(parts, rows)
      done += rows.length
    }
  }
  return done
}
