import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import Sqlite from 'better-sqlite3'
import { DataSource, type EntityManager } from 'typeorm'
import { tables } from './entities.ts'
import { First1764000000000 } from './migrations/first.ts'
import { Plan1764100000000 } from './migrations/plan.ts'
import { Routes1764200000000 } from './migrations/routes.ts'
import { Pages1764400000000 } from './migrations/pages.ts'
import { VisitTags1764300000000 } from './migrations/visitTags.ts'

/** How long a writer waits for another: the largest import holds the lock for a few seconds, and no scan may be lost to it. */
const BUSY_MS = 15_000

/**
 * The database as the office uses it. Reads go through a connection of their own, so that they see
 * only what is committed; writes take turns, each in a transaction that holds the write lock from its
 * first statement.
 */
export interface Database {
  readonly file: string
  /** For reading only. */
  readonly read: EntityManager
  /** A read-only connection of the driver, for the prepared SQL of `scans` and `results`. */
  readonly prepared: Sqlite.Database
  /** Runs `work` in one transaction: all of it is stored, or nothing where it throws. */
  write<T>(work: (manager: EntityManager) => Promise<T>): Promise<T>
  close(): Promise<void>
}

/** Pragmas every writing connection of Flimbo sets: durable commits, and deleted content overwritten. */
export function prepareWriter(connection: Sqlite.Database): void {
  connection.pragma('journal_mode = WAL')
  connection.pragma('synchronous = FULL')
  connection.pragma('foreign_keys = ON')
  connection.pragma('secure_delete = ON')
  connection.pragma(`busy_timeout = ${String(BUSY_MS)}`)
}

/** Opens the database file, making it and its directory where they are missing, and runs what migrations are due. */
export async function openDatabase(file: string): Promise<Database> {
  mkdirSync(dirname(file), { recursive: true })
  const common = { type: 'better-sqlite3', database: file, entities: Object.values(tables), timeout: BUSY_MS } as const
  const writer = new DataSource({
    ...common,
    migrations: [First1764000000000, Plan1764100000000, Routes1764200000000, VisitTags1764300000000, Pages1764400000000],
    prepareDatabase: (connection: Sqlite.Database) => { prepareWriter(connection) },
  })
  await writer.initialize()
  await writer.runMigrations({ transaction: 'each' })
  const reader = new DataSource({ ...common, readonly: true })
  await reader.initialize()
  const prepared = new Sqlite(file, { readonly: true, timeout: BUSY_MS })

  let turn: Promise<unknown> = Promise.resolve()
  return {
    file,
    read: reader.manager,
    prepared,
    write(work) {
      const result = turn.then(() => inTransaction(writer.manager, work))
      turn = result.catch(() => undefined)
      return result
    },
    async close() {
      await turn
      prepared.close()
      await reader.destroy()
      await writer.destroy()
    },
  }
}

/**
 * TypeORM begins deferred transactions; with scans being written beside them those could fail half
 * way for want of the write lock, so it is taken at once here. `work` must use `insert` and `update`.
 */
async function inTransaction<T>(manager: EntityManager, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  await manager.query('BEGIN IMMEDIATE')
  try {
    const result = await work(manager)
    await manager.query('COMMIT')
    return result
  } catch (error) {
    // A full disk rolls the transaction back by itself; there is then nothing left to roll back.
    await manager.query('ROLLBACK').catch(() => undefined)
    throw error
  }
}
