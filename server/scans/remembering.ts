import { LRUCache } from 'lru-cache'

const REMEMBERED = 10_000
/** Headers longer than this are parsed but not remembered, so that the caches' memory has a bound. */
const REMEMBERED_LENGTH = 512

/** What is read out of a header, once for those that phones sent lately. */
export function remembering<T extends object>(read: (text: string) => T): (text: string) => T {
  const cache = new LRUCache<string, T>({ max: REMEMBERED })
  return (text) => {
    const known = cache.get(text)
    if (known) return known
    const fresh = read(text)
    if (text.length <= REMEMBERED_LENGTH) cache.set(text, fresh)
    return fresh
  }
}
