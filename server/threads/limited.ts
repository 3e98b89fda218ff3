import type { Worker } from 'node:worker_threads'
import { startThread } from './thread.ts'
import { queue } from './turns.ts'

/** A thread that nobody needed for so long is ended, with all it kept. */
const IDLE_MS = 60_000
const MEMORY_MAX_MB = 1024

export interface LimitedThread<Order, Answer> {
  /** Asks when those before have been answered; null where the thread took too long, or too much memory, and was ended. */
  ask(order: Order): Promise<Answer | null>
  close(): Promise<void>
}

/**
 * A thread for work that may never end or grow without bound: started when it is needed, given one order at a time,
 * and ended with whatever it does once that has taken `limitMs`. Those who wait are answered by another one.
 *
 * @param name see `startThread`
 * @param caller see `startThread`
 */
export function limitedThread<Order, Answer>(
  name: string,
  caller: string,
  limitMs: number,
): LimitedThread<Order, Answer> {
  const turns = queue()
  let thread: Worker | null = null
  let idle: NodeJS.Timeout | null = null

  async function close(): Promise<void> {
    if (idle) clearTimeout(idle)
    const ending = thread
    thread = null
    await ending?.terminate()
  }

  function give(order: Order): Promise<Answer | null> {
    if (idle) clearTimeout(idle)
    const working = (thread ??= startThread(name, caller, {}, { maxOldGenerationSizeMb: MEMORY_MAX_MB }))
    return new Promise((resolve) => {
      const settle = (answer: Answer | null) => {
        clearTimeout(late)
        working.off('message', settle).off('error', end).off('exit', end)
        idle = setTimeout(() => {
          void close()
        }, IDLE_MS)
        idle.unref()
        resolve(answer)
      }
      const end = () => {
        thread = null
        void working.terminate()
        settle(null)
      }
      const late = setTimeout(end, limitMs)
      working.once('message', settle).once('error', end).once('exit', end)
      working.postMessage(order)
    })
  }

  return { ask: (order) => turns.run(() => give(order)), close }
}
