import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import Sqlite from 'better-sqlite3'
import { DataSource, type EntityManager } from 'typeorm'
import { BUSY_MS, prepareWriter } from '../sqlite/index.ts'
import { tables } from './entities/index.ts'
import { MIGRATIONS } from './migrations/index.ts'
import { startWriting, type Writing } from './writing.ts'

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

const common = (file: string) =>
  ({ type: 'better-sqlite3', database: file, entities: Object.values(tables), timeout: BUSY_MS }) as const

async function openWriter(file: string): Promise<DataSource> {
  mkdirSync(dirname(file), { recursive: true })
  const writer = new DataSource({
    ...common(file),
    migrations: MIGRATIONS,
    prepareDatabase: (connection: Sqlite.Database) => {
      prepareWriter(connection)
    },
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
    file,
    read: reader.manager,
    prepared,
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
  const writes = await startWriting(writer.manager)
  return {
    ...reading,
    ...writes,
    async close() {
      await writes.finish()
      await reading.close()
      await writer.destroy()
    },
  }
}
