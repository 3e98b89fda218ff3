import type { IncomingMessage } from 'node:http'
import { LRUCache } from 'lru-cache'
import { acceptedLanguages } from '@flimbo/core/scans'
import { wordsFor, type Spoken } from '@flimbo/core/words'

/** Phones send one of a few; what is longer is somebody's trial. */
const known = new LRUCache<string, Spoken>({ max: 2000 })
const LONGEST = 200

/** The language a visitor is spoken to in. */
export function spokenTo({ headers }: Pick<IncomingMessage, 'headers'>): Spoken {
  const header = headers['accept-language'] ?? ''
  const there = known.get(header)
  if (there) return there
  const spoken = wordsFor(acceptedLanguages(header).map(({ tag }) => tag))
  if (header.length <= LONGEST) known.set(header, spoken)
  return spoken
}
