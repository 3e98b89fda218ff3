import { parentPort, workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { readerQueries, type ReaderAnswer, type ReaderOrder } from './queries.ts'

const { file } = workerData as { file: string }
const database = new Sqlite(file, { readonly: true, timeout: 5000 })
const queries = readerQueries(database)

parentPort?.on('message', ({ query, values }: ReaderOrder) => {
  let answer: ReaderAnswer
  try {
    // The order's values were typed where it was given: `Reader.ask` takes them by the query's name.
    const run = queries[query] as (...given: unknown[]) => unknown
    answer = { ok: true, value: run(...values) }
  } catch (error) {
    const { name, message } = error instanceof Error ? error : new Error(String(error))
    answer = { ok: false, name, message }
  }
  parentPort?.postMessage(answer)
})
