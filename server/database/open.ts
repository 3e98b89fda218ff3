import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import Sqlite from 'better-sqlite3'
import { DataSource, type EntityManager } from 'typeorm'
import { BUSY_MS, prepareWriter } from '../sqlite/index.ts'
import { tables } from './entities.ts'
import { Doors1764500000000 } from './migrations/doors.ts'
import { First1764000000000 } from './migrations/first.ts'
import { Plan1764100000000 } from './migrations/plan.ts'
import { Routes1764200000000 } from './migrations/routes.ts'
import { Pages1764400000000 } from './migrations/pages.ts'
import { VisitTags1764300000000 } from './migrations/visitTags.ts'
import { writing, type Writing } from './writing.ts'

/** What reads the database: the front door has no more, the office has this and its writing. */
export interface ReadOnly {
  readonly file: string
  /** For reading only: sees only what is committed. */
  readonly read: EntityManager
  /** A read-only connection of the driver, for the prepared SQL of `scans` and `results`. */
  readonly prepared: Sqlite.Database
  close(): Promise<void>
}

/** The database as the office uses it. */
export interface Database extends ReadOnly, Writing {}

const MIGRATIONS = [
  First1764000000000, Plan1764100000000, Routes1764200000000, VisitTags1764300000000, Pages1764400000000, Doors1764500000000,
]

const common = (file: string) => ({ type: 'better-sqlite3', database: file, entities: Object.values(tables), timeout: BUSY_MS }) as const

async function openWriter(file: string): Promise<DataSource> {
  mkdirSync(dirname(file), { recursive: true })
  const writer = new DataSource({
    ...common(file), migrations: MIGRATIONS, prepareDatabase: (connection: Sqlite.Database) => { prepareWriter(connection) },
  })
  await writer.initialize()
  await writer.runMigrations({ transaction: 'each' })
  return writer
}

/** Makes the database file and its directory where they are missing, and runs what migrations are due. */
export async function migrate(file: string): Promise<void> {
  const writer = await openWriter(file)
  await writer.destroy()
}

/** Opens a database that is there, for reading alone. */
export async function openReadOnly(file: string): Promise<ReadOnly> {
  const reader = new DataSource({ ...common(file), readonly: true })
  await reader.initialize()
  const prepared = new Sqlite(file, { readonly: true, timeout: BUSY_MS })
  return {
    file, read: reader.manager, prepared,
    async close() {
      prepared.close()
      await reader.destroy()
    },
  }
}

/**
 * Opens the database for reading and writing, making it where it is missing; what a large write left half done is
 * taken back first. One process at a time writes the office's tables.
 */
export async function openDatabase(file: string): Promise<Database> {
  const writer = await openWriter(file)
  const reading = await openReadOnly(file)
  const writes = await writing(writer.manager)
  return {
    ...reading, ...writes,
    async close() {
      await writes.finish()
      await reading.close()
      await writer.destroy()
    },
  }
}
