import { createHash, randomBytes } from 'node:crypto'
import ipaddr from 'ipaddr.js'
import { LRUCache } from 'lru-cache'
import { places } from '../threads/index.ts'

/** Wrong passwords from one address at one route before each further one has to wait. */
export const FREE_ATTEMPTS = 5
const FIRST_WAIT_MS = 2000
const LONGEST_WAIT_MS = 60_000
/** An address that was quiet for so long begins anew. */
const WINDOW_MS = 15 * 60_000

/** So many passwords are looked at at once in one process, since each costs a tenth of a second of a core; and so many wait. */
const AT_ONCE = 1
export const WAITING_MAX = 16

/** Counts wrong passwords, within bounded memory; addresses are kept in it as digests that nothing else can make. */
export interface Attempts {
  /** Takes an attempt. @returns 0 where it may be looked at, or how many milliseconds to wait first */
  take(routeId: number, address: string, now: number): number
  /** The password was right: the address begins anew. */
  giveBack(routeId: number, address: string): void
  /** Looks at a password in its turn; null where too many are waiting. */
  inTurn<T>(look: () => Promise<T>): Promise<T | null>
}

/** Whoever has an IPv6 address has some 2^64 of them: a whole /64 counts as one. */
function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address
  const parsed = ipaddr.process(address)
  return parsed instanceof ipaddr.IPv6 ? parsed.parts.slice(0, 4).join(':') : parsed.toString()
}

/** Counts wrong passwords by address, in memory, and makes further tries wait. */
export function createAttempts(): Attempts {
  const key = randomBytes(32)
  const counts = new LRUCache<string, { wrong: number; until: number }>({ max: 50_000, ttl: WINDOW_MS })
  const keyOf = (routeId: number, address: string) =>
    createHash('sha256')
      .update(key)
      .update(`${String(routeId)}/${networkOf(address)}`)
      .digest('base64')
  const looking = places(AT_ONCE)
  return {
    take(routeId, address, now) {
      const name = keyOf(routeId, address)
      const { wrong, until } = counts.get(name) ?? { wrong: 0, until: 0 }
      if (now < until) return until - now
      const over = wrong + 1 - FREE_ATTEMPTS
      counts.set(name, {
        wrong: wrong + 1,
        until: over < 0 ? 0 : now + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** over),
      })
      return 0
    },
    giveBack(routeId, address) {
      counts.delete(keyOf(routeId, address))
    },
    async inTurn(look) {
      if (looking.waiting() >= WAITING_MAX) return null
      await looking.take()
      try {
        return await look()
      } finally {
        looking.giveBack()
      }
    },
  }
}
