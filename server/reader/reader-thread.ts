import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { serveCalls } from '../threads/index.ts'
import { readerQueries } from './queries.ts'

const { file } = workerData as { file: string }
serveCalls(readerQueries(new Sqlite(file, { readonly: true, timeout: 5000 })))
