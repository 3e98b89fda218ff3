import type Sqlite from 'better-sqlite3'
import { readScans } from './rows.ts'
import { results } from './compute.ts'
import { effect } from './effect.ts'
import { exits } from './exits.ts'
import { recent } from './recent.ts'
import { tags } from './tags.ts'
import { tallies } from './tallies.ts'

/** Everything the reading thread can be asked. */
export function readerQueries(database: Sqlite.Database) {
  const scans = readScans(database)
  return {
    results: results(database),
    tallies: tallies(database),
    recent: recent(database),
    ...tags(database),
    ...exits(database),
    effect: effect(database),
    scansPage: scans.page.bind(scans),
    pulse: scans.pulse.bind(scans),
  }
}
export type ReaderQueries = ReturnType<typeof readerQueries>
