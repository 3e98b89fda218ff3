import type { EntityManager } from 'typeorm'
import { z } from 'zod'
import type { Database } from '../database/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'

/** What headings of files stood for the last time: a column of the plan, or none. */
export type RememberedMapping = Readonly<Record<string, string | null>>

const REMEMBERED: Section<RememberedMapping> = { name: 'import-headings', schema: z.record(z.string(), z.string().nullable()), usual: {} }
const REMEMBERED_MAX = 500

export async function readMapping(read: EntityManager, workspaceId: number): Promise<RememberedMapping> {
  return (await readSetting(read, workspaceId, REMEMBERED)).value
}

/** Keeps what was decided for the next file; the newest headings push the oldest out. */
export async function rememberMapping(database: Database, workspaceId: number, decided: RememberedMapping): Promise<void> {
  const { value, version } = await readSetting(database.read, workspaceId, REMEMBERED)
  const fresh = Object.keys(decided).some((heading) => value[heading] !== decided[heading])
  if (!fresh) return
  const older = Object.entries(value).filter(([heading]) => !(heading in decided))
  await writeSetting(database, workspaceId, REMEMBERED, { value: Object.fromEntries([...older, ...Object.entries(decided)].slice(-REMEMBERED_MAX)), version })
}
