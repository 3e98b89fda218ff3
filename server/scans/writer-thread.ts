import { parentPort, workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../sqlite/index.ts'
import { scanInserter, type Stored } from './insert.ts'
import type { Packed } from './record.ts'
import { saltKeeper, type SaltRow } from './salts.ts'

/** What the front door asks of this thread; every order is answered once, in turn. */
export type WriterOrder =
  | { readonly order: 'write'; readonly packed: Packed[] }
  | { readonly order: 'salt'; readonly salt: SaltRow }
  | { readonly order: 'close' }

export type WriterAnswer =
  | { readonly ok: true; readonly value: Stored | SaltRow | null }
  | { readonly ok: false; readonly message: string }

const { file } = workerData as { file: string }
const database = new Sqlite(file)
prepareWriter(database)
// Waiting is done by `whenFreeSync`, which looks more often than SQLite does.
database.pragma('busy_timeout = 0')
const insert = scanInserter(database)
const keepSalt = saltKeeper(database)

function carryOut(order: WriterOrder): Stored | SaltRow | null {
  switch (order.order) {
    case 'write':
      return insert(order.packed)
    case 'salt':
      return keepSalt(order.salt)
    case 'close':
      database.close()
      return null
  }
}

parentPort?.on('message', (order: WriterOrder) => {
  let answer: WriterAnswer
  try {
    answer = { ok: true, value: carryOut(order) }
  } catch (error) {
    answer = { ok: false, message: error instanceof Error ? error.message : String(error) }
  }
  parentPort?.postMessage(answer)
  if (order.order === 'close') parentPort?.close()
})
