import type { StoreSizes } from '../figures/index.ts'
import { callThread } from '../threads/index.ts'
import { queueQuestions, type Questions } from './questions.ts'
import type { ReaderQueries } from './queries.ts'

/** Reads figures on a thread of their own, so that a long sum never keeps anybody waiting. */
export type Reader = Questions<ReaderQueries>

/**
 * Starts the thread that reads figures from a database file.
 *
 * @param sizes how much of it is kept in memory
 */
export function startReader(file: string, sizes: Partial<StoreSizes> = {}): Reader {
  return queueQuestions(callThread<ReaderQueries>('reader-thread', import.meta.url, { file, sizes }))
}
