import { LRUCache } from 'lru-cache'

/** Wrong passwords within a quarter of an hour before no more are looked at: of one visitor at one code, and of all at one code. */
export const WRONG_BY_VISITOR = 5
export const WRONG_BY_CODE = 100
const WINDOW_MS = 15 * 60_000

/** Counts wrong passwords, within bounded memory. */
export interface Attempts {
  /** Takes one attempt, if there is one left. It is given back when the password was right. */
  take(codeId: number, visitor: string): boolean
  giveBack(codeId: number, visitor: string): void
}

export function attempts(): Attempts {
  const counts = new LRUCache<string, { n: number }>({ max: 50_000, ttl: WINDOW_MS })
  const keysOf = (codeId: number, visitor: string) => [[`${String(codeId)}/${visitor}`, WRONG_BY_VISITOR], [String(codeId), WRONG_BY_CODE]] as const
  return {
    take(codeId, visitor) {
      const keys = keysOf(codeId, visitor)
      if (keys.some(([key, max]) => (counts.get(key)?.n ?? 0) >= max)) return false
      for (const [key] of keys) {
        const count = counts.get(key)
        if (count) count.n++
        else counts.set(key, { n: 1 })
      }
      return true
    },
    giveBack(codeId, visitor) {
      for (const [key] of keysOf(codeId, visitor)) {
        const count = counts.get(key)
        if (count) count.n--
      }
    },
  }
}
