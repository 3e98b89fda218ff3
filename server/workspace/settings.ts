import type { EntityManager } from 'typeorm'
import type { z } from 'zod'
import { overtaken } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'

/** One part of what a workspace decided, with the version a change must start from; 0 where nobody has decided yet. */
export interface Setting<T> {
  readonly value: T
  readonly version: number
}

/** A section of the settings: its name, the schema that reads what is stored, and what holds where nothing is. */
export interface Section<T> {
  readonly name: string
  readonly schema: z.ZodType<T>
  readonly fallback: T
}

/** What is stored of a part of the settings, with its version; the fallback with version 0 where nothing is. */
export async function readSetting<T>(
  read: EntityManager,
  workspaceId: number,
  { name, schema, fallback }: Section<T>,
): Promise<Setting<T>> {
  const row = await read.findOneBy(tables.settings, { workspaceId, section: name })
  if (!row) return { value: fallback, version: 0 }
  // What an older version of the schema stored is completed by what is usual.
  const whole = Array.isArray(row.value) ? row.value : { ...fallback, ...(row.value as object) }
  return { value: schema.parse(whole), version: row.version }
}

/** Stores a section, unless somebody else has since. @throws Refusal with what is stored now */
export async function writeSetting<T>(
  database: Database,
  workspaceId: number,
  section: Section<T>,
  { value, version }: Setting<T>,
): Promise<Setting<T>> {
  return database.write(async (manager) => {
    const stored = await readSetting(manager, workspaceId, section)
    if (stored.version !== version) throw overtaken('setting', stored)
    // TypeORM wants to know the parts of a value it only writes as JSON.
    const row = { value: value as never, version: version + 1 }
    if (version === 0) await manager.insert(tables.settings, { workspaceId, section: section.name, ...row })
    else await manager.update(tables.settings, { workspaceId, section: section.name }, row)
    return { value, version: version + 1 }
  })
}
