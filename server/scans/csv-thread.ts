import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { scansInOrder } from '../results/index.ts'
import { serveCalls } from '../threads/index.ts'
import { csvHeadings, csvLines } from './csv.ts'
import type { CsvCalls, CsvPart } from './csvParts.ts'
import { scanStore } from './queries.ts'

/** Rows made into text between two looks at whether the other side keeps up. */
const ROWS = 2000

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const facts = scanStore(database)
let parts: ReturnType<typeof scansInOrder> | null = null

function next(): CsvPart {
  const { value, done } = parts?.next() ?? { value: undefined, done: true }
  return { text: csvLines(value ?? []), done: done === true }
}

const calls: CsvCalls = {
  begin(filter) {
    parts = scansInOrder(database, facts, filter, ROWS)
    const { text, done } = next()
    return { text: csvHeadings + text, done }
  },
  next,
}
serveCalls(calls)
