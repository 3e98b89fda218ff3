import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import type { StoreSizes } from '../figures/index.ts'
import { serveCalls } from '../threads/index.ts'
import { readerQueries } from './queries.ts'

const { file, sizes } = workerData as { file: string; sizes: Partial<StoreSizes> }
const queries = readerQueries(new Sqlite(file, { readonly: true, timeout: 5000 }), sizes)
serveCalls(queries)

/** So much longer than it worked it rests, so that no phone beside it waits for a processor. */
const REST = 3
const FIRST_REST_MS = 5000

/** Reads what answers need before anybody asks, a little at a time: whoever asks meanwhile comes first. */
function readAhead(): void {
  const began = performance.now()
  if (queries.readAhead()) restFor(REST * (performance.now() - began))
}
function restFor(ms: number): void {
  setTimeout(readAhead, ms).unref()
}
restFor(FIRST_REST_MS)
