import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import type { StoreSizes } from '../figures/index.ts'
import { serveCalls } from '../threads/index.ts'
import { readerQueries } from './queries.ts'

const { file, sizes } = workerData as { file: string; sizes: Partial<StoreSizes> }
const queries = readerQueries(new Sqlite(file, { readonly: true, timeout: 5000 }), sizes)
serveCalls(queries)

/** Reads what answers need before anybody asks, a little at a time: whoever asks meanwhile comes first. */
function readAhead(): void {
  if (queries.readAhead()) setImmediate(readAhead).unref()
}
setImmediate(readAhead).unref()
