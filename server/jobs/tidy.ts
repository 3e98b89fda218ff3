import { readdirSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { In, IsNull, LessThan, MoreThan, Not } from 'typeorm'
import { tables, type Database } from '../database/index.ts'

const DAY_MS = 24 * 60 * 60_000
/** What has ended is shown for so long; files are kept, and drafts wait, for a day. */
const ENDED_KEPT_MS = 30 * DAY_MS

/** Forgets what ended long ago, drafts that nobody began, and files that were kept for long enough. */
export async function tidyJobs(database: Database, directory: string): Promise<void> {
  const now = Date.now()
  await database.writeAside(async (manager) => {
    await manager.delete(tables.jobs, { endedAt: LessThan(now - ENDED_KEPT_MS) })
    await manager.delete(tables.jobs, { state: 'draft', touchedAt: LessThan(now - DAY_MS) })
    await manager.update(
      tables.jobs,
      { fileName: Not(IsNull()), endedAt: LessThan(now - DAY_MS) },
      { fileName: null, fileType: null, fileBytes: null },
    )
  })
  const ids = readdirSync(directory).map(Number)
  const wanted = await database.read.find(tables.jobs, {
    select: { id: true },
    where: [
      { id: In(ids), endedAt: IsNull() },
      { id: In(ids), endedAt: MoreThan(now - DAY_MS) },
    ],
  })
  const kept = new Set(wanted.map(({ id }) => id))
  for (const id of ids) if (!kept.has(id)) await rm(join(directory, String(id)), { force: true })
}
