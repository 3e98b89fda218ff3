import { z } from 'zod'
import { hasControlCharacters, requiredLine } from '../api/index.ts'
import { destination } from '../routing/index.ts'

export const LINKS_MAX = 30
export const TEXT_MAX = 2000

const link = z.strictObject({ label: requiredLine('what the link says', 80), address: destination })
export type PageLink = z.infer<typeof link>

/** What a page shows: a heading, a text whose empty lines part its paragraphs, and links, which carry the tags of the code that was scanned. */
export const pageContent = z.strictObject({
  title: requiredLine('a heading', 80),
  text: z
    .string()
    .max(TEXT_MAX, `Make the text no longer than ${String(TEXT_MAX)} characters.`)
    .transform((text) => text.replace(/\r\n?/g, '\n').trim())
    .refine(
      (text) => !hasControlCharacters(text.replace(/\n/g, '')),
      'Take control characters other than line breaks out of the text.',
    ),
  links: z.array(link).max(LINKS_MAX, `A page has at most ${String(LINKS_MAX)} links.`),
})
export type PageContent = z.infer<typeof pageContent>
