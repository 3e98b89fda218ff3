import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { confirmationKeeper } from '../leads/confirmation.ts'
import { siteInserter } from '../goals/insert.ts'
import { leadInserter } from '../leads/insert.ts'
import { prepareWriter } from '../sqlite/index.ts'
import { serveCalls } from '../threads/index.ts'
import { eventInserter } from './eventRows.ts'
import { scanInserter } from './insert.ts'
import { saltKeeper } from './salts.ts'
import type { WriterCalls } from './writer.ts'

const { file } = workerData as { file: string }
const database = new Sqlite(file)
prepareWriter(database)
// Waiting is done by `whenFreeSync`, which looks more often than SQLite does.
database.pragma('busy_timeout = 0')

const calls: WriterCalls = {
  store: scanInserter(database),
  note: eventInserter(database),
  keepLeads: leadInserter(database),
  keepSites: siteInserter(database),
  confirm: confirmationKeeper(database),
  keepSalt: saltKeeper(database),
}
serveCalls(calls, () => {
  database.close()
})
