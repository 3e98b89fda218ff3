import type Sqlite from 'better-sqlite3'

/** A log of so many pages is begun anew once all of it is copied. */
const ANEW_PAGES = 8000

interface State {
  readonly busy: number
  readonly log: number
}

/** Keeps the write-ahead log short, on a connection of its own, so that no commit of a scan does it. */
export function logKeeper(database: Sqlite.Database, anewPages = ANEW_PAGES) {
  // It never waits for anybody: what does not go now goes a little later.
  database.pragma('busy_timeout = 0')
  const checkpoint = (mode: 'PASSIVE' | 'RESTART' | 'TRUNCATE'): State => {
    const [state] = database.pragma(`wal_checkpoint(${mode})`) as State[]
    return state ?? { busy: 1, log: -1 }
  }
  /**
   * Keeps nobody from anything, but copies only what was there when it began: of what is written meanwhile the second
   * time finds little, so that the last step, which scans wait for, has almost nothing to do.
   */
  const copyMost = (): State => {
    const first = checkpoint('PASSIVE')
    return first.log < anewPages ? first : checkpoint('PASSIVE')
  }
  return {
    /**
     * Copies what it can into the database. A log that has grown is then begun anew at its start: where scans never
     * pause it would otherwise grow for ever, and each commit that makes a file longer is a slow one.
     */
    copy(): void {
      if (copyMost().log >= anewPages) checkpoint('RESTART')
    },
    /** Copies everything and cuts the log, so that nothing deleted is left in it. @returns whether that went */
    cut(): boolean {
      copyMost()
      const { busy, log } = checkpoint('TRUNCATE')
      return busy === 0 && log <= 0
    },
  }
}
