import { DoorBusy } from './errors.ts'
import type { PageEventRow } from './eventRows.ts'

/** More of it waiting for the disk, and it is turned away: scans come first. */
const WAITING_MAX = 20_000

/** Gathers what happened on pages while a group of it is being stored, so that many are stored in one commit. */
export function noteWriter(store: (events: PageEventRow[]) => Promise<void>) {
  let waiting: PageEventRow[] = []
  let next: Promise<void> | null = null
  let storing: Promise<void> = Promise.resolve()

  return {
    /** Resolves once these are on disk. @throws DoorBusy where too much is waiting already */
    add(events: readonly PageEventRow[]): Promise<void> {
      if (waiting.length + events.length > WAITING_MAX) return Promise.reject(new DoorBusy())
      waiting.push(...events)
      next ??= storing
        .catch(() => undefined)
        .then(() => {
          const group = waiting
          waiting = []
          next = null
          storing = store(group)
          return storing
        })
      return next
    },
    /** Resolves once nothing waits. */
    async empty(): Promise<void> {
      await next?.catch(() => undefined)
      await storing.catch(() => undefined)
    },
  }
}
