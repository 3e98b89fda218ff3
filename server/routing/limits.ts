import { dayIn, shiftDay, startOfDay } from '@flimbo/core/results'
import type { Life, Taken } from '@flimbo/core/routing'

/** Counts the scans that a route's limits let through, to the unit: they are decided one after another, in this process. */
export interface Counter {
  /** How many were let through so far, on the day of `at` and in all. */
  taken(at: number): Taken
  /** Takes one; before the scan is stored, so that no other can have it. */
  take(at: number): void
  /** Gives it back: its scan could not be stored, and nobody was let through. */
  giveBack(at: number): void
}

/** How many scans of a route are on disk that its lanes, or the otherwise lane, let through. */
export type CountStored = (routeId: number, from: number, before: number) => number

interface Parts {
  readonly count: CountStored
  /** Resolves once every scan that now waits for the disk is there. */
  readonly settled: () => Promise<void>
}

/** The counters of all limited routes. */
export interface Limits {
  /** The counter of a route's life; null where nothing limits it. The same limits keep the same counter. */
  counterOf(routeId: number, life: Life | null): Promise<Counter | null>
}

const END_OF_TIME = Number.MAX_SAFE_INTEGER

export function limits({ count, settled }: Parts): Limits {
  const known = new Map<number, { key: string; counter: Promise<Counter> }>()

  async function load(routeId: number, { zone, countedFrom }: Life): Promise<Counter> {
    // No scan of the route is decided meanwhile: each waits for this counter. What was decided before is on disk after this.
    await settled()
    const begin = (at: number) => {
      const day = dayIn(zone, at)
      const from = startOfDay(zone, day)
      const until = startOfDay(zone, shiftDay(day, 1))
      return { from, until, taken: count(routeId, from, until) }
    }
    let today = begin(Date.now())
    let total = count(routeId, countedFrom, END_OF_TIME)
    const dayOf = (at: number) => { if (at >= today.until) today = { ...begin(at), taken: 0 }; return today }
    return {
      taken: (at) => ({ total, today: dayOf(at).taken }),
      take(at) {
        total++
        dayOf(at).taken++
      },
      giveBack(at) {
        total--
        if (at >= today.from) today.taken--
      },
    }
  }

  return {
    counterOf(routeId, life) {
      if (life === null || (life.limit === null && life.daily === null)) {
        known.delete(routeId)
        return Promise.resolve(null)
      }
      const key = `${String(life.countedFrom)} ${life.zone}`
      const there = known.get(routeId)
      if (there?.key === key) return there.counter
      const counter = load(routeId, life)
      known.set(routeId, { key, counter })
      counter.catch(() => { if (known.get(routeId)?.counter === counter) known.delete(routeId) })
      return counter
    },
  }
}
