import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { pageEventsInOrder, scansInOrder } from '../results/index.ts'
import { serveCalls } from '../threads/index.ts'
import { arrowFile, parquetFile } from './columnFiles.ts'
import { csvHeadings, csvLines } from './csv.ts'
import { eventHeadings, eventLines } from './eventCsv.ts'
import { eventStore, scanStore } from './queries.ts'
import type { FileRows, RowCalls, RowPart } from './rowFiles.ts'

/** Rows made into text between two looks at whether the other side keeps up. */
const ROWS = 2000
/** A group of a file of columns has more: each is packed by itself. */
const GROUP_ROWS = 20_000

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const [scans, events] = [scanStore(database), eventStore(database)]
let parts: Generator<Omit<RowPart, 'isEnd'>, undefined, undefined> | null = null

function* partsOf(rows: FileRows): Generator<Omit<RowPart, 'isEnd'>, undefined, undefined> {
  let done = 0
  if (rows.of === 'page-events') {
    yield { bytes: eventHeadings, done, total: 0 }
    for (const some of pageEventsInOrder(database, events, rows.filter, ROWS))
      yield { bytes: eventLines(some), done: (done += some.length), total: 0 }
    return undefined
  }
  if (rows.format === 'csv') {
    yield { bytes: csvHeadings, done, total: 0 }
    for (const { rows: some, total } of scansInOrder(database, scans, rows.filter, ROWS))
      yield { bytes: csvLines(some), done: (done += some.length), total }
    return undefined
  }
  const made = rows.format === 'arrow' ? arrowFile() : parquetFile()
  for (const { rows: some, total } of scansInOrder(database, scans, rows.filter, GROUP_ROWS))
    if (some.length > 0) yield { bytes: made.write(some), done: (done += some.length), total }
  yield { bytes: made.end(), done, total: done }
  return undefined
}

function next(): RowPart {
  const { value, done } = parts?.next() ?? { value: undefined, done: true }
  return { ...(value ?? { bytes: '', done: 0, total: 0 }), isEnd: done === true }
}

const calls: RowCalls = {
  begin(rows) {
    parts = partsOf(rows)
    return next()
  },
  next,
}
serveCalls(calls)
