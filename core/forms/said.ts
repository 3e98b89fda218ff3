import { fallbacks, firstSaid, type Localised } from '../fields/index.ts'
import type { Words } from '../words/index.ts'

/** In which language a form is read, and what Flimbo itself says in it. */
export interface Said {
  readonly language: string
  /** Those of the page, its own first. */
  readonly languages: readonly string[]
  readonly words: Pick<Words['forms'], 'yes' | 'no'>
}

/** What is said in a language, or the nearest that has it; empty where none has. */
export const said = (
  { language, languages }: Pick<Said, 'language' | 'languages'>,
  value: Localised<string>,
): string =>
  firstSaid(value, fallbacks(language, languages), (each) => each.trim() === '')?.value.trim() ?? ''
