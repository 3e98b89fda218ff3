import { printedLink } from './slug.ts'

/** A code that can be edited for ever: its symbol carries its short link. */
interface Dynamic {
  readonly origin: string
  readonly slug: string
}

/** A code that carries its content itself: it has neither route nor short link. */
interface Static {
  readonly content: string
}

/** What the symbol of a code carries, as it is written in it. */
export function contentOf(code: Dynamic | Static): string {
  return 'slug' in code ? printedLink(code.origin, code.slug) : code.content
}
