import { escapeMarkup, publicDocument } from '@flimbo/core/pages'
import type { OwnPage, Spoken } from '@flimbo/core/words'

/** What each of the front door's own pages is answered with. */
const STATUS: Readonly<Record<OwnPage, number>> = {
  home: 200,
  unknown: 404,
  paused: 404,
  deleted: 410,
  early: 404,
  over: 410,
  full: 410,
  'full-today': 404,
  busy: 503,
  method: 405,
  malformed: 400,
}

/** A whole document, ready to send; `body` and `head` are markup. `spoken` is the language of what Flimbo itself says. */
export function document(title: string, body: string, head = '', spoken?: Spoken): Buffer {
  return Buffer.from(publicDocument(title, body, head, spoken))
}

export interface Rendered {
  readonly status: number
  readonly body: Buffer
  /** The language of it, where it is all one (RFC 9110, section 8.5). */
  readonly language?: string
  /** What it may do beyond standing there: further directives of its Content-Security-Policy. */
  readonly policy?: readonly string[]
  /** Its whole Content-Security-Policy, where it has one of its own. */
  readonly security?: string
  /** Whether nobody is told that the visitor comes from here: its address may carry what is meant for this page alone. */
  readonly hidesReferrer?: true
}

const rendered = new Map<string, Rendered>()

/** One of the front door's own pages in a language, made once. */
export function ownWords(name: OwnPage, spoken: Spoken): Rendered {
  const key = `${spoken.language} ${name}`
  const known = rendered.get(key)
  if (known) return known
  const { title, text } = spoken.words.pages[name]
  const page: Rendered = {
    status: STATUS[name],
    language: spoken.language,
    body: document(title, `<p>${escapeMarkup(text)}</p>`, '', spoken),
  }
  rendered.set(key, page)
  return page
}

/** The page for unknown short links in a domain's own words. */
export function unknownPage(text: string, spoken: Spoken): Rendered {
  const { title } = spoken.words.pages.unknown
  return { status: STATUS.unknown, body: document(title, `<p>${escapeMarkup(text)}</p>`, '', spoken) }
}

/** A message a manager wrote. */
export function messagePage(title: string, text: string): Rendered {
  return { status: 200, body: document(title, `<p>${escapeMarkup(text)}</p>`) }
}

export const ROBOTS = 'User-agent: *\nDisallow: /\n'
