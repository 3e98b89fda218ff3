import { isRightToLeft } from '../../words/index.ts'
import type { PageContent } from '../content.ts'
import { html, trusted, type Markup, said } from '../../fields/index.ts'
import type { Part } from '../parts.ts'
import { pageCss } from './css.ts'
import { formPart } from './form.ts'
import { audio, filePart, video } from './media.ts'
import { contactPart, placePart } from './people.ts'
import { pageScript } from './script.ts'
import {
  appSwitch,
  button,
  divider,
  heading,
  link,
  picture,
  pictures,
  prices,
  questions,
  textPart,
} from './simple.ts'
import { fileIn, fullHref, ownName, type Surroundings } from './surroundings.ts'
import { countdown, eventPart, hoursPart } from './times.ts'

/** One part as markup; nothing where what it needs is not there. */
export function drawPart(part: Part, around: Surroundings, isFirstPicture = false): Markup | null {
  switch (part.kind) {
    case 'heading':
      return heading(part, around)
    case 'text':
      return textPart(part, around)
    case 'picture':
      return picture(part, around, isFirstPicture)
    case 'pictures':
      return pictures(part, around)
    case 'link':
      return link(part, around)
    case 'button':
      return button(part, around)
    case 'file':
      return filePart(part, around)
    case 'audio':
      return audio(part, around)
    case 'video':
      return video(part, around)
    case 'hours':
      return hoursPart(part, around)
    case 'place':
      return placePart(part, around)
    case 'event':
      return eventPart(part, around)
    case 'contact':
      return contactPart(part, around)
    case 'prices':
      return prices(part, around)
    case 'countdown':
      return countdown(part, around)
    case 'divider':
      return divider()
    case 'questions':
      return questions(part, around)
    case 'appSwitch':
      return appSwitch(part, around)
    case 'form':
      return formPart(part, around)
  }
}

/** The languages a page can be read in, each by its own name; nothing where there is one. */
function languageSwitch({ language, languages, languageHref, spoken }: Surroundings): Markup | null {
  if (languages.length < 2) return null
  const links = languages.map((each) => {
    const name = ownName(each)
    return each === language
      ? html`<b lang="${each}" aria-current="true">${name}</b>`
      : html`<a lang="${each}" hreflang="${each}" href="${languageHref(each)}">${name}</a>`
  })
  return html`<nav aria-label="${spoken.words.parts.languages}">${links}</nav>`
}

/** What link previews show of a page (Open Graph protocol). */
function preview(content: PageContent, title: string, around: Surroundings): Markup {
  const { text } = said(around, content.description)
  const file = fileIn(around, content.picture)
  const href = file && fullHref(around, file, 'jpg')
  return html`<meta property="og:type" content="website" /><meta
      property="og:title"
      content="${title}"
    />${text !== '' && html`<meta name="description" content="${text}" /><meta property="og:description" content="${text}" />`}${href !== undefined && html`<meta property="og:image" content="${around.origin}${href}" /><meta name="twitter:card" content="summary_large_image" />`}`
}

/**
 * A page as a whole document (HTML Standard). This is the only function that draws one: the front door sends what it
 * gives, and previews show it. Whatever is typed on a page is text in it, and never markup.
 */
export function drawPage(content: PageContent, around: Surroundings): string {
  const shown = content.parts.filter((part) => !part.isHidden && around.shows(part))
  const firstPicture = shown.find(({ kind }) => kind === 'picture')
  const parts = shown.flatMap((part) => drawPart(part, around, part === firstPicture) ?? [])
  const title = said(around, content.title).text
  const hasTitle = shown.some(
    (part) => part.kind === 'heading' && part.size === 'title' && said(around, part.text).text !== '',
  )
  const heads = hasTitle ? null : html`<h1 class="only">${title}</h1>`
  const hasForm = shown.some(({ kind }) => kind === 'form')
  const script = pageScript(around.tellHref, {
    hasCountdown: shown.some(({ kind }) => kind === 'countdown'),
    hasForm,
  })
  const css = pageCss(
    around.style,
    (key) => {
      const file = around.file(key)
      return file ? fullHref(around, file, 'webp') : ''
    },
    { forced: around.scheme, hasForm },
  )
  const { language, nonce } = around
  const direction = isRightToLeft(language) ? html` dir="rtl"` : null
  return html`<!doctype html>
    <html lang="${language}" ${direction}>
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width,initial-scale=1" />
        <meta name="robots" content="noindex" />
        <title>${title}</title>
        ${preview(content, title, around)}
        <style nonce="${nonce}">
          ${trusted(css)}
        </style>
      </head>
      <body>
        <main>${languageSwitch(around)}${heads}${parts}</main>
        ${
          script !== '' &&
          html`<script nonce="${nonce}">
            ${trusted(script)}
          </script>`
        }
      </body>
    </html>`.markup
}
