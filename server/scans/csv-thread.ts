import { parentPort, workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { stringify } from 'csv-stringify/sync'
import { scansInOrder } from '../results/index.ts'
import { csvHeadings, csvValues } from './csv.ts'
import type { CsvOrder, CsvPart } from './csvParts.ts'

/** Rows made into text between two looks at whether the other side keeps up. */
const ROWS = 2000

const { file, filter } = workerData as CsvOrder
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const options = { record_delimiter: 'windows', escape_formulas: true } as const
const parts = scansInOrder(database, filter, ROWS)
let isFirst = true

function next(): CsvPart {
  try {
    const { value, done } = parts.next()
    const rows = (value ?? []).map(csvValues)
    const text = stringify(isFirst ? [csvHeadings, ...rows] : rows, options)
    isFirst = false
    return { ok: true, text, done: done === true }
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) }
  }
}

parentPort?.on('message', () => { parentPort?.postMessage(next()) })
