import { z } from 'zod'
import { hasControlCharacters } from '../api/index.ts'
import { destination } from '../routing/index.ts'
import { escapeMarkup } from './escapeMarkup.ts'

/**
 * A text with paragraphs, lists, emphasis and links, kept as what it says and never as markup: there is nothing in it that
 * could be taken for markup later.
 */
export const RICH_TEXT_MAX = 10_000
const BLOCKS_MAX = 200
const RUNS_MAX = 200

/** Text of one look; a line break in it stays one. */
const run = z.strictObject({
  text: z
    .string()
    .min(1)
    .max(RICH_TEXT_MAX)
    .transform((text) => text.replace(/\r\n?/g, '\n'))
    .refine(
      (text) => !hasControlCharacters(text.replace(/\n/g, '')),
      'Take control characters out of the text.',
    ),
  bold: z.boolean().optional(),
  italic: z.boolean().optional(),
  link: destination.optional(),
})
export type Run = z.infer<typeof run>

const runs = z.array(run).max(RUNS_MAX, `A paragraph changes its look at most ${String(RUNS_MAX)} times.`)

const block = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('paragraph'), runs }),
  z.strictObject({
    kind: z.literal('list'),
    isNumbered: z.boolean(),
    items: z
      .array(runs)
      .min(1)
      .max(BLOCKS_MAX, `A list has at most ${String(BLOCKS_MAX)} lines.`),
  }),
])
export type Block = z.infer<typeof block>

const lengthOf = (blocks: readonly Block[]) => plainText(blocks).length

export const richText = z
  .array(block)
  .max(BLOCKS_MAX, `A text has at most ${String(BLOCKS_MAX)} paragraphs and lists.`)
  .transform((blocks) => blocks.map(tidyBlock).filter((each) => !isEmpty(each)))
  .refine(
    (blocks) => lengthOf(blocks) <= RICH_TEXT_MAX,
    `Make the text no longer than ${RICH_TEXT_MAX.toLocaleString('en-GB')} characters.`,
  )
export type RichText = z.infer<typeof richText>

const lookOf = ({ bold = false, italic = false, link = '' }: Run) => JSON.stringify([bold, italic, link])

/** Runs of the same look that stand side by side are one; what is not set is left out. */
function tidyRuns(all: readonly Run[]): Run[] {
  const tidy: Run[] = []
  for (const { text, bold, italic, link } of all) {
    const each: Run = {
      text,
      ...(bold ? { bold } : {}),
      ...(italic ? { italic } : {}),
      ...(link === undefined ? {} : { link }),
    }
    const last = tidy.at(-1)
    if (last && lookOf(last) === lookOf(each)) tidy[tidy.length - 1] = { ...last, text: last.text + text }
    else tidy.push(each)
  }
  return tidy
}
function tidyBlock(each: Block): Block {
  return each.kind === 'paragraph'
    ? { ...each, runs: tidyRuns(each.runs) }
    : { ...each, items: each.items.map(tidyRuns).filter((item) => textOf(item).trim() !== '') }
}
const isEmpty = (each: Block) =>
  each.kind === 'paragraph' ? textOf(each.runs).trim() === '' : each.items.length === 0

const textOf = (all: readonly Run[]) => all.map(({ text }) => text).join('')

/** What a text says without any look: paragraphs with an empty line in between, each line of a list on its own. */
export function plainText(blocks: readonly Block[]): string {
  return blocks
    .map((each) => (each.kind === 'paragraph' ? textOf(each.runs) : each.items.map(textOf).join('\n')))
    .join('\n\n')
}

/** A text that was typed without looks: empty lines part its paragraphs. */
export function textFromPlain(text: string): RichText {
  return text
    .split(/\n{2,}/)
    .map((paragraph) => paragraph.trim())
    .filter((paragraph) => paragraph !== '')
    .map((paragraph) => ({ kind: 'paragraph', runs: [{ text: paragraph }] }))
}

/**
 * A text as markup (HTML Standard: p, ul, ol, strong, em, a, br).
 *
 * @param hrefOf where a link leads, with the tags of the code that was scanned
 */
export function textMarkup(blocks: readonly Block[], hrefOf: (address: string) => string): string {
  return blocks
    .map((each) => {
      if (each.kind === 'paragraph') return `<p>${runsMarkup(each.runs, hrefOf)}</p>`
      const tag = each.isNumbered ? 'ol' : 'ul'
      return `<${tag}>${each.items.map((item) => `<li>${runsMarkup(item, hrefOf)}</li>`).join('')}</${tag}>`
    })
    .join('')
}

function runsMarkup(all: readonly Run[], hrefOf: (address: string) => string): string {
  return all
    .map(({ text, bold, italic, link }) => {
      const words = escapeMarkup(text).replaceAll('\n', '<br>')
      const slanted = italic ? `<em>${words}</em>` : words
      const strong = bold ? `<strong>${slanted}</strong>` : slanted
      return link === undefined ? strong : `<a href="${escapeMarkup(hrefOf(link))}">${strong}</a>`
    })
    .join('')
}
