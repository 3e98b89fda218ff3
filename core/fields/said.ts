import { fallbacks, firstSaid, type Localised } from './localised.ts'
import { plainText, type RichText } from './richText.ts'

/** In which language something is read, and those that it has, its own first. */
export interface Reading {
  readonly language: string
  readonly languages: readonly string[]
}

/** What a field says to the visitor, with the language where it is another than the page is shown in. */
export function said(
  { language, languages }: Reading,
  value: Localised<string>,
): { text: string; lang: string } {
  const found = firstSaid(value, fallbacks(language, languages), (each) => each.trim() === '')
  return found
    ? { text: found.value.trim(), lang: found.language === language ? '' : found.language }
    : { text: '', lang: '' }
}

/** The same for a text with looks. */
export function saidRich(
  { language, languages }: Reading,
  value: Localised<RichText>,
): { blocks: RichText; lang: string } {
  const found = firstSaid(value, fallbacks(language, languages), (each) => plainText(each).trim() === '')
  return found
    ? { blocks: found.value, lang: found.language === language ? '' : found.language }
    : { blocks: [], lang: '' }
}
