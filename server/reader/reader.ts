import { callThread } from '../threads/index.ts'
import { questionsTo, type Questions } from './questions.ts'
import type { ReaderQueries } from './queries.ts'

/** Reads figures on a thread of their own, so that a long sum never keeps anybody waiting. */
export type Reader = Questions<ReaderQueries>

export function startReader(file: string): Reader {
  return questionsTo(callThread<ReaderQueries>('reader-thread', import.meta.url, { file }))
}
