import { DoorBusy } from './errors.ts'

/**
 * Gathers things while a group of them is being stored, so that many are stored in one commit.
 *
 * @param store stores a group; what became of each, in their order
 * @param waitingMax more of them waiting, and new ones are turned away: scans come first
 */
export function gather<T, R>(store: (things: T[]) => Promise<readonly R[]>, waitingMax: number) {
  let waiting: T[] = []
  let next: Promise<readonly R[]> | null = null
  let storing: Promise<readonly R[]> = Promise.resolve([])

  return {
    /** Resolves once these are on disk, with what became of each. @throws DoorBusy where too many are waiting already */
    add(things: readonly T[]): Promise<readonly R[]> {
      if (waiting.length + things.length > waitingMax) return Promise.reject(new DoorBusy())
      const from = waiting.length
      waiting.push(...things)
      next ??= storing
        .catch(() => undefined)
        .then(() => {
          const group = waiting
          waiting = []
          next = null
          storing = store(group)
          return storing
        })
      return next.then((results) => results.slice(from, from + things.length))
    },
    /** Resolves once nothing waits. */
    async empty(): Promise<void> {
      await next?.catch(() => undefined)
      await storing.catch(() => undefined)
    },
  }
}
