import { escapeMarkup, pageBody, publicDocument } from '@flimbo/core/pages'
import type { LinkedPage } from '@flimbo/core/routing'

/** A small page of the front door: plain words, no script, readable on any phone. */
interface Page {
  readonly status: number
  readonly title: string
  readonly text: string
}

export const PAGES = {
  home: {
    status: 200,
    title: 'Short links',
    text: 'This address serves short links. Scan a code, or type a short link to its end, to be taken to its page.',
  },
  unknown: {
    status: 404,
    title: 'No such short link',
    text: 'Nothing is kept under this address. Please check the letters and digits, or ask whoever gave it to you.',
  },
  paused: {
    status: 404,
    title: 'Resting for now',
    text: 'This code is paused at the moment. Please try again later, or ask whoever put it up.',
  },
  deleted: {
    status: 410,
    title: 'No longer in use',
    text: 'This code has been withdrawn and leads nowhere any more. Please ask whoever put it up.',
  },
  early: {
    status: 404,
    title: 'Not yet',
    text: 'What this code leads to has not begun yet. Please come back a little later.',
  },
  over: {
    status: 410,
    title: 'This is over',
    text: 'What this code led to has ended. Please ask whoever put it up what there is now.',
  },
  full: {
    status: 410,
    title: 'All taken',
    text: 'There was a fixed number of these, and all of them are taken. Please ask whoever put this code up.',
  },
  'full-today': {
    status: 404,
    title: 'All taken for today',
    text: 'Today’s share is taken. Please try again tomorrow.',
  },
  busy: {
    status: 503,
    title: 'One moment, please',
    text: 'This short link cannot be followed just now. Please try again in a minute.',
  },
  method: {
    status: 405,
    title: 'Only for reading',
    text: 'Short links can only be opened. Please open this address in a browser.',
  },
  malformed: {
    status: 400,
    title: 'This could not be read',
    text: 'The address or the request is damaged. Please scan the code again.',
  },
} as const satisfies Record<string, Page>
export type PageName = keyof typeof PAGES

/** A whole document, ready to send; `body` and `head` are markup. */
export function document(title: string, body: string, head = ''): Buffer {
  return Buffer.from(publicDocument(title, body, head))
}

export interface Rendered {
  readonly status: number
  readonly body: Buffer
  /** What it may do beyond standing there: further directives of its Content-Security-Policy. */
  readonly policy?: readonly string[]
  /** Whether nobody is told that the visitor comes from here: its address may carry what is meant for this page alone. */
  readonly hidesReferrer?: true
}

/** Every page, ready to send. */
export const RENDERED = Object.fromEntries(
  Object.entries(PAGES).map(([name, { status, title, text }]) => [
    name,
    { status, body: document(title, `<p>${text}</p>`) },
  ]),
) as Record<PageName, Rendered>

/** The page for unknown short links in a domain's own words. */
export function unknownPage(text: string): Rendered {
  const { status, title } = PAGES.unknown
  return { status, body: document(title, `<p>${escapeMarkup(text)}</p>`) }
}

/** A message a manager wrote. */
export function messagePage(title: string, text: string): Rendered {
  return { status: 200, body: document(title, `<p>${escapeMarkup(text)}</p>`) }
}

/** A page a manager made, its links tagged for the code that was scanned. */
export function ownPage(page: Pick<LinkedPage, 'title' | 'text' | 'links'>): Rendered {
  return { status: 200, body: document(page.title, pageBody(page)) }
}

export const ROBOTS = 'User-agent: *\nDisallow: /\n'
