import type { PageContent } from './content.ts'
import { fieldsOfPart } from './content.ts'
import { contactName } from './draw/people.ts'
import { PART_NAMES, type Part } from './parts.ts'
import { plainText, said } from '../fields/index.ts'

/** So much of a text is shown to know it by. */
const SNIPPET = 60

/**
 * What a part is called in lists.
 *
 * @param language the language its words are wanted in (BCP 47)
 * @param languages all languages of the page, in their order
 * @returns what kind of part it is, and the first words in it; empty where it has none
 */
export function partTitle(
  part: Part,
  language: string,
  languages: readonly string[],
): { kind: string; words: string } {
  const words = fieldsOfPart(part).find(
    ({ field, value }) => field.type === 'words' && Object.keys(value as object).length > 0,
  )
  const kind = PART_NAMES[part.kind]
  if (part.kind === 'contact') return { kind, words: contactName(part) }
  if (part.kind === 'text')
    return {
      kind,
      words: plainText(part.text[language] ?? Object.values(part.text)[0] ?? []).slice(0, SNIPPET),
    }
  return {
    kind,
    words: words ? said({ language, languages }, words.value as Readonly<Record<string, string>>).text : '',
  }
}

/**
 * What figures call a part of a page, by its id: in the first language of the page.
 *
 * @param content the page as it is now; null where it is gone
 * @param id empty for the page as a whole
 */
export function partName(content: PageContent | null, id: string): string {
  if (id === '') return 'Page'
  const part = content?.parts.find((each) => each.id === id)
  if (!content || !part) return 'A part that was removed'
  const { kind, words } = partTitle(part, content.languages[0] ?? 'en', content.languages)
  return words === '' ? kind : `${kind}: ${words}`
}
