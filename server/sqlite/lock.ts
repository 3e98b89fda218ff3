import { setTimeout } from 'node:timers/promises'

/** How long a writer waits for another before it gives up: nothing of Flimbo's holds the lock for so long. */
export const BUSY_MS = 15_000

const PAUSE_MS = 1
const LONGEST_PAUSE_MS = 5

const isBusy = (error: unknown) => /^SQLITE_BUSY/.test(String((error as { code?: unknown }).code))

/**
 * Begins something that needs the write lock, again and again until it is free. The thread goes on with other
 * things meanwhile: SQLite's own waiting would stop it. `begin` must not wait itself (`busy_timeout = 0`).
 */
export async function retryWhenLocked<T>(begin: () => Promise<T>): Promise<T> {
  const until = performance.now() + BUSY_MS
  for (let pause = PAUSE_MS; ; pause = Math.min(LONGEST_PAUSE_MS, pause + 1)) {
    try {
      return await begin()
    } catch (error) {
      if (!isBusy(error) || performance.now() > until) throw error
    }
    await setTimeout(pause)
  }
}

const sleeper = new Int32Array(new SharedArrayBuffer(4))
const NAP_MS = 0.5

/** The same on a thread that has nothing else to do: it sleeps, and looks more often than SQLite itself would. */
export function retryWhenLockedSync<T>(begin: () => T): T {
  const until = performance.now() + BUSY_MS
  for (;;) {
    try {
      return begin()
    } catch (error) {
      if (!isBusy(error) || performance.now() > until) throw error
    }
    Atomics.wait(sleeper, 0, 0, NAP_MS)
  }
}
