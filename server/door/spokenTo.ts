import type { IncomingMessage } from 'node:http'
import { acceptedLanguages } from '@flimbo/core/scans'
import { wordsFor, type Spoken } from '@flimbo/core/words'
import { remembering } from '../scans/index.ts'

const spokenBy = remembering((header) => wordsFor(acceptedLanguages(header).map(({ tag }) => tag)))

/** The language a visitor is spoken to in. */
export function spokenTo({ headers }: Pick<IncomingMessage, 'headers'>): Spoken {
  return spokenBy(headers['accept-language'] ?? '')
}
