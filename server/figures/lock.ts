import Sqlite from 'better-sqlite3'

/** Held by one process at a time; whoever ends without releasing it, held it no longer. */
export interface Lock {
  /** Takes it where nobody else holds it. @returns whether it is held */
  take(): boolean
  release(): void
}

/** A lock that a file stands for. SQLite's own lock on a file of nothing else holds on every system alike. */
export function fileLock(path: string): Lock {
  let holder: Sqlite.Database | null = null
  return {
    take() {
      if (holder) return true
      const database = new Sqlite(path, { timeout: 0 })
      try {
        database.exec('BEGIN EXCLUSIVE')
      } catch (error) {
        database.close()
        if ((error as { code?: string }).code === 'SQLITE_BUSY') return false
        throw error
      }
      holder = database
      return true
    },
    release() {
      holder?.close()
      holder = null
    },
  }
}
