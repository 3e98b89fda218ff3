import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../sqlite/index.ts'
import { serveCalls } from '../threads/index.ts'
import { scanFolder } from './folding.ts'
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

const folder = scanFolder(database, writer, packer)
let packed = { mark: 0, newest: 0 }

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
    return { ...state(), hasMore: isPacking && folder.step(Date.now()) }
  },
}
serveCalls(calls, () => {
  packer.close()
  database.close()
  writer.close()
})
