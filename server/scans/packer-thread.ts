import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../sqlite/index.ts'
import { serveCalls } from '../threads/index.ts'
import { scanFact } from './fact.ts'
import { EVENT_TABLE, SCAN_TABLE } from './foldedRow.ts'
import { factFolder } from './folding.ts'
import { scanMover } from './mover.ts'
import type { PackingCalls } from './packing.ts'
import { pageEventFact } from './pageEventFact.ts'
import { eventPacker, scanPacker } from './queries.ts'

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const packer = scanPacker(database)
const events = eventPacker(database)
const writer = new Sqlite(file)
prepareWriter(writer)
// Nothing that is moved is secret, and nothing waits for anybody while it holds the lock.
writer.pragma('secure_delete = OFF')
writer.pragma('busy_timeout = 0')
const mover = scanMover(writer)

const folder = factFolder(database, writer, packer, scanFact, SCAN_TABLE)
const eventFolder = factFolder(database, writer, events, pageEventFact, EVENT_TABLE)
let packed = { mark: 0, newest: 0 }

/** What happened on pages is packed and folded behind the scans. @returns whether there is more to do at once */
function stepOfEvents(): boolean {
  if (eventFolder.isFolding()) return eventFolder.step(Date.now())
  const { hasMore, isPacking } = events.step()
  return hasMore || (isPacking && eventFolder.step(Date.now()))
}

const calls: PackingCalls = {
  step() {
    const toMove = mover.left()
    const state = () => ({ done: packed.mark, total: packed.newest, toMove })
    if (folder.isFolding()) return { ...state(), hasMore: folder.step(Date.now()) }
    const { hasMore, isPacking, ...at } = packer.step()
    packed = at
    // Figures first: rows are read from wherever they are.
    if (hasMore || toMove > 0) {
      if (!hasMore) mover.step()
      return { ...state(), hasMore: true }
    }
    const isFolding = isPacking && folder.step(Date.now())
    return { ...state(), hasMore: isFolding || stepOfEvents() }
  },
}
serveCalls(calls, () => {
  packer.close()
  events.close()
  database.close()
  writer.close()
})
