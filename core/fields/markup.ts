import { escapeMarkup } from './escapeMarkup.ts'

/** Markup: text that was written by `html` alone, so that whatever came from people is escaped in it. */
export interface Markup {
  readonly markup: string
}

type Piece = string | number | Markup | null | false | readonly Piece[]

function written(piece: Piece): string {
  if (piece === null || piece === false) return ''
  if (Array.isArray(piece)) return (piece as readonly Piece[]).map(written).join('')
  if (typeof piece === 'object') return (piece as Markup).markup
  return escapeMarkup(String(piece))
}

/** Templates with what is broken into lines in them on one. */
const onOneLine = new WeakMap<TemplateStringsArray, readonly string[]>()

function partsOf(template: TemplateStringsArray): readonly string[] {
  const known = onOneLine.get(template)
  if (known) return known
  const parts = template.map((part) => part.replace(/\s*\n\s*/g, ' '))
  onOneLine.set(template, parts)
  return parts
}

/**
 * Writes markup. What stands in `${}` is text and escaped, within attributes (in double quotes) too, but for what was
 * written by this itself; null and false are nothing, lists are written one after the other.
 */
export function html(template: TemplateStringsArray, ...pieces: readonly Piece[]): Markup {
  return { markup: partsOf(template).reduce((all, part, i) => all + written(pieces[i - 1] ?? null) + part) }
}

/** Markup that somebody else wrote, and answers for. */
export const trusted = (markup: string): Markup => ({ markup })
