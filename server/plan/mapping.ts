import type { EntityManager } from 'typeorm'
import { z } from 'zod'
import { DELIMITERS, ENCODINGS, type Encoding } from '@flimbo/core/plan'
import type { Database } from '../database/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'

/** What headings of files stood for the last time: a column of the plan, or none. */
export type RememberedMapping = Readonly<Record<string, string | null>>

const REMEMBERED: Section<RememberedMapping> = {
  name: 'import-headings',
  schema: z.record(z.string(), z.string().nullable()),
  fallback: {},
}
const REMEMBERED_MAX = 500

/** What headings of earlier files stood for, in this workspace. */
export async function readMapping(read: EntityManager, workspaceId: number): Promise<RememberedMapping> {
  return (await readSetting(read, workspaceId, REMEMBERED)).value
}

/** Keeps what was decided for the next file; the newest headings push the oldest out. */
export async function rememberMapping(
  database: Database,
  workspaceId: number,
  decided: RememberedMapping,
): Promise<void> {
  const { value, version } = await readSetting(database.read, workspaceId, REMEMBERED)
  const fresh = Object.keys(decided).some((heading) => value[heading] !== decided[heading])
  if (!fresh) return
  const older = Object.entries(value).filter(([heading]) => !(heading in decided))
  await writeSetting(database, workspaceId, REMEMBERED, {
    value: Object.fromEntries([...older, ...Object.entries(decided)].slice(-REMEMBERED_MAX)),
    version,
  })
}

/** How files were read where what they look like was not what they are: what was detected, and what a person said instead. */
export interface RememberedReading {
  readonly encodings: Readonly<Record<string, Encoding>>
  readonly delimiters: Readonly<Record<string, string>>
}

const READING: Section<RememberedReading> = {
  name: 'import-reading',
  schema: z.object({
    encodings: z.record(z.string(), z.enum(ENCODINGS)),
    delimiters: z.record(z.string(), z.enum(DELIMITERS)),
  }),
  fallback: { encodings: {}, delimiters: {} },
}

/** How earlier files of this workspace were read, by how they were detected. */
export async function readReading(read: EntityManager, workspaceId: number): Promise<RememberedReading> {
  return (await readSetting(read, workspaceId, READING)).value
}

/** Keeps for the next file like it how a file was read. */
export async function rememberReading(
  database: Database,
  workspaceId: number,
  detected: Detected,
  chosen: Detected,
): Promise<void> {
  const { value, version } = await readSetting(database.read, workspaceId, READING)
  const next = {
    encodings: { ...value.encodings, [detected.encoding]: chosen.encoding },
    delimiters: { ...value.delimiters, [detected.delimiter]: chosen.delimiter },
  }
  const usual =
    detected.encoding === chosen.encoding &&
    detected.delimiter === chosen.delimiter &&
    !(detected.encoding in value.encodings) &&
    !(detected.delimiter in value.delimiters)
  if (!usual && JSON.stringify(next) !== JSON.stringify(value))
    await writeSetting(database, workspaceId, READING, { value: next, version })
}

export interface Detected {
  readonly encoding: Encoding
  readonly delimiter: string
}
