import { dayIn, shiftDay, startOfDay } from '@flimbo/core/time'
import type { Life, Taken } from '@flimbo/core/routing'
import { isLimited, takenOn, type LimitCount } from '../scans/index.ts'

/**
 * What a front door knows of a limited route. It may lag behind what other doors have let through, never run ahead:
 * whether a scan has its place is settled by the commit that stores it.
 */
export interface Counter {
  /** How many were let through as far as is known, on the day of `at` and in all. */
  taken(at: number): Taken
  /** The day of a moment in the zone of the limits. */
  dayOf(at: number): string
  /** Whether there is nothing left, as far as is known. */
  isUsedUp(taken: Taken): boolean
  /** Whether a mark took its place on a day already. */
  has(workspaceId: number, day: string, mark: string): boolean
}

/** What is stored of limits: asked where a route is loaded, and where one is used up. */
export interface StoredLimits {
  countOf(routeId: number): LimitCount | null
  isMarked(workspaceId: number, day: string, routeId: number, mark: string): boolean
}

/** The counters of all limited routes that a front door has loaded. */
export interface Limits {
  /** A counter for a route, with what is stored by now; null where nothing limits it. */
  counterOf(routeId: number, life: Life | null): Counter | null
  /** Takes over what a commit has counted. */
  learn(routeId: number, count: LimitCount): void
  /** Forgets a route that is not kept any more. */
  forget(routeId: number): void
}

const NOTHING_TAKEN: LimitCount = { total: 0, day: '', today: 0 }

/** The day of moments that mostly lie in the same one. */
function daysOf(zone: string): (at: number) => string {
  let known = { day: '', from: 0, until: 0 }
  return (at) => {
    if (at >= known.from && at < known.until) return known.day
    const day = dayIn(zone, at)
    known = { day, from: startOfDay(zone, day), until: startOfDay(zone, shiftDay(day, 1)) }
    return day
  }
}

/** Counts what limited routes let through, each scan in its turn, from what is stored. */
export function limits(stored: StoredLimits): Limits {
  const known = new Map<number, LimitCount>()
  return {
    counterOf(routeId, life) {
      if (!isLimited(life)) return null
      const dayOf = daysOf(life.zone)
      known.set(routeId, stored.countOf(routeId) ?? NOTHING_TAKEN)
      return {
        dayOf,
        taken: (at) => takenOn(known.get(routeId) ?? NOTHING_TAKEN, dayOf(at)),
        isUsedUp: ({ total, today }) =>
          (life.limit !== null && total >= life.limit) || (life.daily !== null && today >= life.daily),
        has: (workspaceId, day, mark) => stored.isMarked(workspaceId, day, routeId, mark),
      }
    },
    learn(routeId, count) {
      if (known.has(routeId)) known.set(routeId, count)
    },
    forget(routeId) {
      known.delete(routeId)
    },
  }
}
