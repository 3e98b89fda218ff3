import { LRUCache } from 'lru-cache'

/** So many answers of one visitor at one form in so long a time are nobody's who reads what they answer. */
const ANSWERS_MAX = 8
const WINDOW_MS = 10 * 60_000
const VISITORS_MAX = 50_000

/** Counts how often somebody answers a form, so that what comes too often can be held. */
export function formPace() {
  const recent = new LRUCache<string, number[]>({ max: VISITORS_MAX })
  return {
    /** Notes one answer. @returns whether it is one too many */
    isTooMany(visitor: string, form: string, now: number): boolean {
      const key = `${visitor} ${form}`
      const times = (recent.get(key) ?? []).filter((at) => now - at < WINDOW_MS)
      times.push(now)
      recent.set(key, times.slice(-ANSWERS_MAX - 1))
      return times.length > ANSWERS_MAX
    },
  }
}
export type FormPace = ReturnType<typeof formPace>
