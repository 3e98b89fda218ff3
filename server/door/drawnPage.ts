import { randomBytes } from 'node:crypto'
import type { Visit } from '@flimbo/core/conditions'
import { drawPage, mapKey, type FormVisit, type PartOf, type Surroundings } from '@flimbo/core/pages'
import { isDeviceAddress, languageFor } from '@flimbo/core/fields'
import { wordsFor } from '@flimbo/core/words'
import type { ShelvedPage } from '../pages/index.ts'
import type { Posting } from '../routing/index.ts'
import { fileHref } from './fileHref.ts'
import type { Rendered } from './pages.ts'

/** Who is shown a page, and under which address. */
export interface Shown {
  readonly page: ShelvedPage
  readonly posting: Pick<Posting, 'compiled' | 'referenceHours'>
  readonly visit: Visit
  /** The short link it stands at, as its path; with `/~` and a token what happens on it is told there. */
  readonly path: string
  readonly token: string
  /** The language that was chosen on it; empty before. */
  readonly chosen: string
  readonly origin: string
  /** How its forms are shown; left out where nobody answers them. */
  readonly form?: (part: PartOf<'form'>) => FormVisit
}

/** The language that somebody is shown a page in. */
export const languageIn = ({ visit, page, chosen }: Pick<Shown, 'visit' | 'page' | 'chosen'>): string =>
  languageFor(visit.languages, page.content.languages, chosen)

/** What an address of the page ends with, so that the query and the language that was chosen go along; a `?` and all. */
export function queryIn(shown: Pick<Shown, 'visit' | 'page' | 'chosen'>): string {
  const { visit, chosen } = shown
  const query = [visit.query, chosen === '' ? '' : `in=${languageIn(shown)}`].filter((each) => each !== '')
  return query.length === 0 ? '' : `?${query.join('&')}`
}

/** What a page is drawn into for a visitor. */
export function surroundingsOf(shown: Shown): Surroundings {
  const { page, posting, visit, path, token, origin, form } = shown
  const { content, style, files, tests } = page
  const language = languageIn(shown)
  const base = `${path}/~${token}`
  const query = visit.query === '' ? '' : `?${visit.query}`
  const inLanguage = queryIn(shown)
  return {
    language,
    languages: content.languages,
    spoken: wordsFor([language]),
    now: visit.at,
    zone: content.zone,
    style,
    shows: ({ id }) => tests.get(id)?.holds(visit, posting.compiled.code.scanned) ?? true,
    system: visit.device.system,
    file: (key) => files.get(key),
    fileHref,
    linkHref: (partId, item, address) =>
      isDeviceAddress(address) ? address.trim() : `${base}/l/${partId}/${item}${inLanguage}`,
    takeHref: (partId) => `${base}/t/${partId}${inLanguage}`,
    passHref: page.wallet === null ? null : (partId) => `${base}/t/${partId}/pass${inLanguage}`,
    languageHref: (tag) => `${base}/in/${tag}${query}`,
    mapOf: (point) => page.maps[mapKey(point)] ?? '',
    tellHref: base,
    ...(form ? { form } : {}),
    nonce: randomBytes(12).toString('base64'),
    origin,
  }
}

/** A page as it is sent: no script, style or picture in it but its own, and nothing told to anybody else. */
export function drawnPage(shown: Shown): Rendered {
  const around = surroundingsOf(shown)
  const { nonce, language } = around
  const hasForm = shown.page.content.parts.some(({ kind }) => kind === 'form')
  return {
    status: 200,
    language,
    security: `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; img-src 'self'; media-src 'self'; connect-src 'self'; base-uri 'none'; form-action ${hasForm ? "'self'" : "'none'"}; frame-ancestors 'none'`,
    hidesReferrer: true,
    body: Buffer.from(drawPage(shown.page.content, around)),
  }
}

/** Where each link of a page leads, whoever it is shown to, by its part and item. */
export function linksOfPage(shown: Shown): ReadonlyMap<string, string> {
  const links = new Map<string, string>()
  // Where a form is sent is no link of the page.
  const { form: _form, ...around } = surroundingsOf(shown)
  drawPage(shown.page.content, {
    ...around,
    shows: () => true,
    linkHref: (partId, item, address) => {
      links.set(`${partId} ${item}`, address)
      return ''
    },
  })
  return links
}
