import type Sqlite from 'better-sqlite3'
import { codeLists, effect, exits, readScans, recent, results, tagRows, tallies } from '../results/queries.ts'
import { printStates } from '../print/queries.ts'
import { campaignLooks } from '../tagging/queries.ts'

/** Everything the reading thread can be asked. */
export function readerQueries(database: Sqlite.Database) {
  const scans = readScans(database)
  const rows = tagRows(database)
  return {
    ...codeLists(database),
    ...exits(database),
    ...campaignLooks(rows),
    ...printStates(database),
    tagValues: rows.tagValues,
    channelCodes: rows.channelCodes,
    effect: effect(database),
    pulse: scans.pulse.bind(scans),
    recent: recent(database),
    results: results(database),
    scansPage: scans.page.bind(scans),
    tallies: tallies(database),
  }
}
export type ReaderQueries = ReturnType<typeof readerQueries>
