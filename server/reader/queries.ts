import type Sqlite from 'better-sqlite3'
import {
  codeLists,
  crossed,
  effect,
  exits,
  readScans,
  recent,
  results,
  tagRows,
  tallies,
} from '../results/queries.ts'
import { printStates } from '../print/queries.ts'
import { scanStore } from '../scans/queries.ts'
import { campaignLooks } from '../tagging/queries.ts'

/** Everything the reading thread can be asked. */
export function readerQueries(database: Sqlite.Database) {
  const facts = scanStore(database)
  const scans = readScans(database, facts)
  const rows = tagRows(database)
  return {
    ...codeLists(database),
    ...exits(facts),
    ...campaignLooks(rows),
    ...printStates(database),
    tagValues: rows.tagValues,
    channelCodes: rows.channelCodes,
    crossed: crossed(database, facts),
    effect: effect(database, facts),
    pulse: scans.pulse.bind(scans),
    recent: recent(database, facts),
    results: results(database, facts),
    scansPage: scans.page.bind(scans),
    tallies: tallies(database, facts),
  }
}
export type ReaderQueries = ReturnType<typeof readerQueries>
