import { AsyncLocalStorage } from 'node:async_hooks'
import type { Response } from 'express'

const asking = new AsyncLocalStorage<AbortSignal>()

/** Runs what answers a request; whatever it asks on the way can tell whether anybody still waits for it. */
export function withAbandonSignal<T>(response: Response, work: () => Promise<T>): Promise<T> {
  const gone = new AbortController()
  response.once('close', () => {
    gone.abort()
  })
  return asking.run(gone.signal, work)
}

/** Runs what others may wait for too: it goes on when the first who asked has left. */
export function forAll<T>(work: () => T): T {
  return asking.exit(work)
}

/** Aborts when nobody waits any more for the answer that is being worked out; undefined outside of a request. */
export function abandonSignal(): AbortSignal | undefined {
  return asking.getStore()
}
