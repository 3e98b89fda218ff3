import { parentPort, workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../database/index.ts'
import { destroyDaysBefore, scanInserter, type SaltRow } from './insert.ts'
import type { Packed } from './record.ts'

/** What the front door asks of this thread; every order is answered once, in turn. */
export type WriterOrder =
  | { readonly order: 'write'; readonly packed: Packed[]; readonly salts: SaltRow[] }
  | { readonly order: 'destroy'; readonly workspaceId: number; readonly before: string }
  | { readonly order: 'close' }

export type WriterAnswer = { readonly ok: true } | { readonly ok: false; readonly message: string }

const { file } = workerData as { file: string }
const database = new Sqlite(file)
prepareWriter(database)
const insert = scanInserter(database)

function carryOut(order: WriterOrder): void {
  switch (order.order) {
    case 'write': insert(order.packed, order.salts); return
    case 'destroy': destroyDaysBefore(database, order.workspaceId, order.before); return
    case 'close': database.close()
  }
}

parentPort?.on('message', (order: WriterOrder) => {
  let answer: WriterAnswer = { ok: true }
  try {
    carryOut(order)
  } catch (error) {
    answer = { ok: false, message: error instanceof Error ? error.message : String(error) }
  }
  parentPort?.postMessage(answer)
  if (order.order === 'close') parentPort?.close()
})
