import { publicDocument } from '@flimbo/core/pages'
import { escapeMarkup } from '@flimbo/core/fields'
import type { OwnPage } from '@flimbo/core/words'
import type { Voice } from './voice.ts'

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

/** A whole document, ready to send; `body` and `head` are markup. It wears the style of whom it speaks for. */
export function document(
  title: string,
  body: string,
  voice: Voice,
  head = '',
): Pick<Rendered, 'body' | 'dress'> {
  const { css } = voice.dress
  return { dress: voice.dress, body: Buffer.from(publicDocument(title, body, { css, writing: voice, head })) }
}

export interface Rendered {
  readonly status: number
  readonly body: Buffer
  /** The style sheet it wears, where it is one of the front door's own. */
  readonly dress?: Voice['dress']
  /** The language of it, where it is all one (RFC 9110, section 8.5). */
  readonly language?: string
  /** What it may do beyond standing there: further directives of its Content-Security-Policy. */
  readonly policy?: readonly string[]
  /** Its whole Content-Security-Policy, where it has one of its own. */
  readonly security?: string
  /** Whether nobody is told that the visitor comes from here: its address may carry what is meant for this page alone. */
  readonly hidesReferrer?: true
}

const rendered = new WeakMap<Voice['dress'], Map<string, Rendered>>()

/** One of the front door's own pages in a language and style, made once. */
export function ownWords(name: OwnPage, voice: Voice): Rendered {
  const all = rendered.get(voice.dress) ?? new Map<string, Rendered>()
  rendered.set(voice.dress, all)
  const key = `${voice.language} ${name}`
  const known = all.get(key)
  if (known) return known
  const { title, text } = voice.words.pages[name]
  const page: Rendered = {
    status: STATUS[name],
    language: voice.language,
    ...document(title, `<p>${escapeMarkup(text)}</p>`, voice),
  }
  all.set(key, page)
  return page
}

/** The page for unknown short links in a domain's own words. */
export function unknownPage(text: string, voice: Voice): Rendered {
  const { title } = voice.words.pages.unknown
  return { status: STATUS.unknown, ...document(title, `<p>${escapeMarkup(text)}</p>`, voice) }
}

/** A message a manager wrote, in a language that nobody said. */
export function messagePage(title: string, text: string, { dress }: Pick<Voice, 'dress'>): Rendered {
  const body = `<p>${escapeMarkup(text)}</p>`
  return { status: 200, dress, body: Buffer.from(publicDocument(title, body, { css: dress.css })) }
}

export const ROBOTS = 'User-agent: *\nDisallow: /\n'
