import { startThread } from '../threads/index.ts'
import type { ReaderAnswer, ReaderOrder, ReaderQueries } from './queries.ts'

/** Reads figures on a thread of their own, so that a long sum never keeps a phone waiting. */
export interface Reader {
  ask<Q extends keyof ReaderQueries>(query: Q, ...values: Parameters<ReaderQueries[Q]>): Promise<ReturnType<ReaderQueries[Q]>>
  close(): Promise<void>
}

export function startReader(file: string): Reader {
  const thread = startThread('reader-thread', import.meta.url, { file })
  const open = new Map<number, { resolve: (value: never) => void; reject: (error: Error) => void }>()
  let broken: Error | null = null
  let last = 0

  thread.on('message', (answer: ReaderAnswer) => {
    const order = open.get(answer.id)
    open.delete(answer.id)
    if (answer.ok) order?.resolve(answer.value as never)
    else order?.reject(Object.assign(new Error(answer.message), { name: answer.name }))
  })
  const giveUp = (cause?: unknown) => {
    broken ??= new Error('The reading thread stopped', { cause })
    for (const { reject } of open.values()) reject(broken)
    open.clear()
  }
  thread.on('error', giveUp)
  thread.on('exit', () => { giveUp() })

  return {
    ask: (query, ...values) => new Promise((resolve, reject) => {
      if (broken) { reject(broken); return }
      const id = ++last
      open.set(id, { resolve, reject })
      thread.postMessage({ id, query, values } satisfies ReaderOrder)
    }),
    async close() { await thread.terminate() },
  }
}
