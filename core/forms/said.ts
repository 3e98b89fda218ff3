import type { Reading } from '../fields/index.ts'
import type { Words } from '../words/index.ts'

/** In which language a form is read, and what Flimbo itself says in it. */
export interface Said extends Reading {
  readonly words: Pick<Words['forms'], 'yes' | 'no'>
}
