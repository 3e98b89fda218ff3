import type Sqlite from 'better-sqlite3'
import type { StoreSizes } from '../figures/index.ts'
import {
  answers,
  codeLists,
  conversionStore,
  effect,
  exits,
  expectedCounts,
  goalRows,
  pageEvents,
  readPageEvents,
  readScans,
  recent,
  summary,
  tagRows,
  tallies,
} from '../results/queries.ts'
import { leadQueries } from '../leads/queries.ts'
import { printStates } from '../print/queries.ts'
import { eventStore, foldedScans, scanStore } from '../scans/queries.ts'
import { campaignLooks } from '../tagging/queries.ts'

/** Everything the reading thread can be asked. */
export function readerQueries(database: Sqlite.Database, sizes: Partial<StoreSizes> = {}) {
  const facts = scanStore(database, sizes)
  const events = eventStore(database, sizes)
  const scans = readScans(database, facts)
  const rows = tagRows(database)
  const conversions = conversionStore(database)
  return inTransactions(database, {
    ...codeLists(database),
    ...exits(facts),
    ...goalRows(database),
    ...expectedCounts(database, facts),
    ...pageEvents(database, events),
    ...readPageEvents(database, events),
    ...campaignLooks(rows),
    ...leadQueries(database),
    ...printStates(database),
    tagValues: rows.tagValues,
    answers: answers(database, facts, conversions),
    readAhead: () => conversions.readAhead(),
    ...foldedScans(database, facts),
    effect: effect(database, facts),
    pulse: scans.pulse.bind(scans),
    lastHour: scans.lastHour.bind(scans),
    recent: recent(database, facts),
    scansPage: scans.page.bind(scans),
    summary: summary(database, facts),
    tallies: tallies(database, facts),
  })
}

/** Each question sees one state of the database, whatever is written, or folded, meanwhile. */
function inTransactions<Q extends object>(database: Sqlite.Database, queries: Q): Q {
  return Object.fromEntries(
    Object.entries<(...values: never[]) => unknown>(queries as never).map(([name, query]) => [
      name,
      database.transaction(query),
    ]),
    // Each takes and gives what it did.
  ) as Q
}
export type ReaderQueries = ReturnType<typeof readerQueries>
