import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { pageEventsInOrder, scansInOrder } from '../results/index.ts'
import { serveCalls } from '../threads/index.ts'
import { csvHeadings, csvLines } from './csv.ts'
import type { CsvCalls, CsvPart, FileRows } from './csvParts.ts'
import { eventHeadings, eventLines } from './eventCsv.ts'
import { eventStore, scanStore } from './queries.ts'

/** Rows made into text between two looks at whether the other side keeps up. */
const ROWS = 2000

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const [scans, events] = [scanStore(database), eventStore(database)]
let lines: Generator<string, undefined, undefined> | null = null

function* linesOf(rows: FileRows): Generator<string, undefined, undefined> {
  yield rows.of === 'scans' ? csvHeadings : eventHeadings
  if (rows.of === 'scans')
    for (const some of scansInOrder(database, scans, rows.filter, ROWS)) yield csvLines(some)
  else for (const some of pageEventsInOrder(database, events, rows.filter, ROWS)) yield eventLines(some)
  return undefined
}

function next(): CsvPart {
  const { value, done } = lines?.next() ?? { value: undefined, done: true }
  return { text: value ?? '', done: done === true }
}

const calls: CsvCalls = {
  begin(rows) {
    lines = linesOf(rows)
    return next()
  },
  next,
}
serveCalls(calls)
