import { abandonSignal, Refusal } from '../api/index.ts'
import type { CalledThread, Calls } from '../threads/index.ts'

/** So many different questions wait; who asks more is told to come again. */
export const WAITING_MAX = 200

/** Questions to a thread: equal ones that wait are asked once; what nobody waits for any more is not asked at all. */
export interface Questions<C extends Calls> {
  ask<Q extends keyof C & string>(query: Q, ...values: Parameters<C[Q]>): Promise<Awaited<ReturnType<C[Q]>>>
  close(): Promise<void>
}

interface Asker {
  readonly resolve: (value: never) => void
  readonly reject: (error: Error) => void
}

interface Question {
  readonly key: string
  readonly query: string
  readonly values: readonly unknown[]
  readonly askers: Set<Asker>
}

/** Somebody left before the answer was there. */
class Abandoned extends Error {
  override readonly name = 'Abandoned'
}

/** Asks a thread one question at a time, in the order in which they come. */
export function queueQuestions<C extends Calls>(thread: CalledThread<C>): Questions<C> {
  /** By their keys, in the order in which they were asked. */
  const waiting = new Map<string, Question>()
  let current: Question | null = null
  let broken: Error | null = null

  function next(): void {
    if (current || broken) return
    const [first] = waiting.values()
    if (!first) return
    waiting.delete(first.key)
    current = first
    // The values were typed where they were given: `ask` takes them by the query's name.
    thread.call(first.query, ...(first.values as never)).then(
      (value) => {
        answer(({ resolve }) => {
          resolve(value as never)
        })
      },
      (error: Error) => {
        answer(({ reject }) => {
          reject(error)
        })
      },
    )
  }

  function answer(settle: (asker: Asker) => void): void {
    for (const asker of current?.askers ?? []) settle(asker)
    current = null
    next()
  }

  thread.onEnd((cause) => {
    broken = new Error('The thread stopped', { cause })
    for (const { askers } of waiting.values()) for (const { reject } of askers) reject(broken)
    waiting.clear()
  })

  return {
    ask: (query, ...values) =>
      new Promise((resolve, reject) => {
        const signal = abandonSignal()
        if (broken) {
          reject(broken)
          return
        }
        if (signal?.aborted) {
          reject(new Abandoned())
          return
        }
        const key = JSON.stringify([query, values])
        const known = waiting.get(key)
        if (!known && waiting.size >= WAITING_MAX) {
          reject(
            new Refusal(
              'unavailable',
              'More is being asked just now than can be worked out. Try again in a moment.',
            ),
          )
          return
        }
        const question = known ?? { key, query, values, askers: new Set<Asker>() }
        waiting.set(key, question)
        const { askers } = question
        const leave = () => {
          if (!askers.delete(asker)) return
          reject(new Abandoned())
          // The same may be asked anew meanwhile, by others: that one stays.
          if (askers.size === 0 && waiting.get(key) === question) waiting.delete(key)
        }
        // One request may ask a hundred questions: what was answered does not listen any more.
        const asker: Asker = {
          resolve(value) {
            signal?.removeEventListener('abort', leave)
            resolve(value)
          },
          reject(error) {
            signal?.removeEventListener('abort', leave)
            reject(error)
          },
        }
        askers.add(asker)
        signal?.addEventListener('abort', leave, { once: true })
        next()
      }),
    async close() {
      await thread.end()
    },
  }
}
