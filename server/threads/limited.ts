import { callThread, type CalledThread, type Calls } from './calls.ts'
import { queue } from './turns.ts'

/** A thread that nobody needed for so long is ended, with all it kept. */
const IDLE_MS = 60_000
const MEMORY_MAX_MB = 1024

export interface LimitedThread<C extends Calls> {
  /** Calls it when those before have been answered; null where it took too long, or too much memory, or failed. */
  call<K extends keyof C & string>(
    name: K,
    ...values: Parameters<C[K]>
  ): Promise<Awaited<ReturnType<C[K]>> | null>
  close(): Promise<void>
}

/**
 * A thread for work that may never end or grow without bound: started when it is needed, called for one thing at a
 * time, and ended with whatever it does once that has taken `limitMs`. Those who wait are answered by another one.
 *
 * @param name see `startThread`
 * @param caller see `startThread`
 */
export function limitedThread<C extends Calls>(
  name: string,
  caller: string,
  limitMs: number,
): LimitedThread<C> {
  const turns = queue()
  let thread: CalledThread<C> | null = null
  let idle: NodeJS.Timeout | null = null

  async function close(): Promise<void> {
    if (idle) clearTimeout(idle)
    const ending = thread
    thread = null
    await ending?.end()
  }

  async function give<K extends keyof C & string>(
    call: K,
    values: Parameters<C[K]>,
  ): Promise<Awaited<ReturnType<C[K]>> | null> {
    if (idle) clearTimeout(idle)
    const working = (thread ??= callThread<C>(name, caller, {}, { maxOldGenerationSizeMb: MEMORY_MAX_MB }))
    const late = setTimeout(() => void close(), limitMs)
    try {
      return await working.call(call, ...values)
    } catch {
      // What went wrong once may have left anything behind: the next call gets a fresh thread.
      if (thread === working) thread = null
      await working.end()
      return null
    } finally {
      clearTimeout(late)
      idle = setTimeout(() => void close(), IDLE_MS)
      idle.unref()
    }
  }

  return { call: (call, ...values) => turns.run(() => give(call, values)), close }
}
