import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../sqlite/index.ts'
import { serveCalls } from '../threads/index.ts'
import { scanMover } from './mover.ts'
import type { PackingCalls } from './packing.ts'
import { scanPacker } from './queries.ts'

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const packer = scanPacker(database)
const writer = new Sqlite(file)
prepareWriter(writer)
// Nothing that is moved is secret, and nothing waits for anybody while it holds the lock.
writer.pragma('secure_delete = OFF')
writer.pragma('busy_timeout = 0')
const mover = scanMover(writer)

const calls: PackingCalls = {
  step() {
    const { mark, newest, hasMore } = packer.step()
    // Figures first: rows are read from wherever they are.
    if (!hasMore) mover.step()
    const toMove = mover.left()
    return { done: mark, total: newest, toMove, hasMore: hasMore || toMove > 0 }
  },
}
serveCalls(calls, () => {
  packer.close()
  database.close()
  writer.close()
})
