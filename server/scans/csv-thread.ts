import { parentPort, workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { scansInOrder } from '../results/index.ts'
import { csvHeadings, csvLines } from './csv.ts'
import type { CsvOrder, CsvPart } from './csvParts.ts'

/** Rows made into text between two looks at whether the other side keeps up. */
const ROWS = 2000

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
let parts: ReturnType<typeof scansInOrder> | null = null

function next(order: CsvOrder): CsvPart {
  try {
    const isFirst = order !== 'next'
    if (isFirst) parts = scansInOrder(database, order.begin, ROWS)
    const { value, done } = parts?.next() ?? { value: undefined, done: true }
    return { ok: true, text: `${isFirst ? csvHeadings : ''}${csvLines(value ?? [])}`, done: done === true }
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) }
  }
}

parentPort?.on('message', (order: CsvOrder) => {
  parentPort?.postMessage(next(order))
})
