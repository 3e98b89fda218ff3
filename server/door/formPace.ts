import { LRUCache } from 'lru-cache'

/** So many answers of one visitor at one form in so long a time are nobody's who reads what they answer. */
const ANSWERS_MAX = 8
const WINDOW_MS = 10 * 60_000
const VISITORS_MAX = 50_000

/** Counts how often somebody answers a form, or sends files, so that what comes too often can be held. */
export function formPace() {
  const recent = new LRUCache<string, number[]>({ max: VISITORS_MAX })
  return {
    /** Notes that somebody did something. @returns whether it is one time too many */
    isTooMany(visitor: string, what: string, now: number, most = ANSWERS_MAX): boolean {
      const key = `${visitor} ${what}`
      const times = (recent.get(key) ?? []).filter((at) => now - at < WINDOW_MS)
      times.push(now)
      recent.set(key, times.slice(-most - 1))
      return times.length > most
    },
  }
}
export type FormPace = ReturnType<typeof formPace>
