import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { serveCalls } from '../threads/index.ts'
import type { PackingCalls } from './packing.ts'
import { scanPacker } from './queries.ts'

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const packer = scanPacker(database)
const calls: PackingCalls = { step: () => packer.step() }
serveCalls(calls, () => {
  packer.close()
  database.close()
})
