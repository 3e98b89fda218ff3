import { callThread, type Calls } from '../threads/index.ts'

/** What the thread is called for. */
export interface UpkeepCalls extends Calls {
  /** Looks after the database once. @returns whether nothing destroyed is left in the log */
  look(): boolean
}

export interface Upkeep {
  close(): Promise<void>
}

const EVERY_MS = 250

/**
 * Looks after the database beside the scans, on a thread of its own: destroys what was kept of visitors as soon as
 * their day is over, scans or none, and keeps the write-ahead log short.
 *
 * @param onError told what went wrong, each time; the next look tries again
 */
export function startUpkeep(file: string, onError: (message: string) => void, everyMs = EVERY_MS): Upkeep {
  const thread = callThread<UpkeepCalls>('upkeep-thread', import.meta.url, { file })
  let isLooking = false
  const timer = setInterval(() => {
    if (isLooking) return
    isLooking = true
    thread
      .call('look')
      .catch((error: unknown) => {
        onError(String(error))
      })
      .finally(() => {
        isLooking = false
      })
  }, everyMs)
  return {
    close() {
      clearInterval(timer)
      return thread.close()
    },
  }
}
