import type Sqlite from 'better-sqlite3'
import { BUSY_MS } from './lock.ts'

/**
 * The log is emptied by a thread of its own, in the quiet; only where that does not come to it does a commit
 * do it, so that no phone waits for it.
 */
const LOG_PAGES_MAX = 20_000
const CACHE_KIB = 65_536

/** Pragmas every writing connection of Flimbo sets: durable commits, and deleted content overwritten. */
export function prepareWriter(connection: Sqlite.Database): void {
  connection.pragma('journal_mode = WAL')
  connection.pragma('synchronous = FULL')
  connection.pragma('foreign_keys = ON')
  connection.pragma('secure_delete = ON')
  connection.pragma(`wal_autocheckpoint = ${String(LOG_PAGES_MAX)}`)
  connection.pragma(`cache_size = -${String(CACHE_KIB)}`)
  connection.pragma(`busy_timeout = ${String(BUSY_MS)}`)
}
