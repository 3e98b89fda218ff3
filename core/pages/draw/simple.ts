import { html, type Markup } from '../../fields/index.ts'
import type { PartOf } from '../parts.ts'
import { altOf, linkTo, pictureOf, richIn, wordsIn } from './shared.ts'
import { fileIn, type Surroundings } from './surroundings.ts'

export function heading({ text, size, id }: PartOf<'heading'>, around: Surroundings): Markup | null {
  const words = wordsIn(around, text)
  if (!words) return null
  return size === 'title' ? html`<h1 id="${id}">${words}</h1>` : html`<h2 id="${id}">${words}</h2>`
}

export function textPart({ text, id }: PartOf<'text'>, around: Surroundings): Markup | null {
  return richIn(around, id, text)
}

export function picture(
  { id, picture: given, alt, isDecoration, caption, address }: PartOf<'picture'>,
  around: Surroundings,
  isFirst: boolean,
): Markup | null {
  const file = fileIn(around, given)
  if (!file) return null
  const drawn = pictureOf(around, file, isDecoration ? '' : altOf(around, alt), { isFirst })
  const linked = address.trim() === '' ? drawn : html`<a${linkTo(around, id, 'p', address)}>${drawn}</a>`
  const under = wordsIn(around, caption)
  return html`<figure>${linked}${under && html`<figcaption>${under}</figcaption>`}</figure>`
}

const ROW_SIZES = '(max-width:34rem) 60vw, 18rem'
export function pictures({ items }: PartOf<'pictures'>, around: Surroundings): Markup | null {
  const drawn = items.flatMap(({ picture: given, alt }) => {
    const file = fileIn(around, given)
    return file ? [html`<li>${pictureOf(around, file, altOf(around, alt), { sizes: ROW_SIZES })}</li>`] : []
  })
  // What is moved sideways is reached by keys too (WCAG 2.2, 2.1.1).
  return drawn.length === 0
    ? null
    : html`<ul class="row" tabindex="0">
        ${drawn}
      </ul>`
}

export function link({ id, label, note, address }: PartOf<'link'>, around: Surroundings): Markup | null {
  const words = wordsIn(around, label)
  if (!words || address.trim() === '') return null
  const under = wordsIn(around, note)
  return html`<a class="link" ${linkTo(around, id, 'l', address)}
    >${words}${under && html`<small>${under}</small>`}</a
  >`
}

export function button({ id, label, address, look }: PartOf<'button'>, around: Surroundings): Markup | null {
  const words = wordsIn(around, label)
  if (!words || address.trim() === '') return null
  const kind = look === 'filled' ? 'go' : 'go quiet'
  return html`<a class="${kind}" ${linkTo(around, id, 'l', address)}>${words}</a>`
}

export const divider = (): Markup => html`<hr />`

export function questions({ id, items }: PartOf<'questions'>, around: Surroundings): Markup | null {
  const drawn = items.flatMap(({ question, answer }, i) => {
    const asked = wordsIn(around, question)
    const said = richIn({ ...around, linkHref: itemLinks(around, i) }, id, answer)
    return asked && said
      ? [
          html`<details>
            <summary>${asked}</summary>
            ${said}
          </details>`,
        ]
      : []
  })
  return drawn.length === 0 ? null : html`<div class="asked">${drawn}</div>`
}

/** Links of one of several texts of a part. */
function itemLinks({ linkHref }: Surroundings, i: number): Surroundings['linkHref'] {
  return (partId, item, address) => linkHref(partId, `${String(i)}${item}`, address)
}

export function prices({ sections }: PartOf<'prices'>, around: Surroundings): Markup | null {
  const drawn = sections.flatMap(({ title, items }) => {
    const lines = items.flatMap(({ name, note, price }) => {
      const named = wordsIn(around, name)
      if (!named) return []
      const under = wordsIn(around, note)
      const cost = price.trim() === '' ? null : html`<dd>${price.trim()}</dd>`
      return [
        html`<div>
          <dt>${named}${under && html`<small>${under}</small>`}</dt>
          ${cost ?? html`<dd></dd>`}
        </div>`,
      ]
    })
    const head = wordsIn(around, title)
    const list = lines.length === 0 ? null : html`<dl class="prices">${lines}</dl>`
    return head || list ? [html`<section>${head && html`<h2>${head}</h2>`}${list}</section>`] : []
  })
  return drawn.length === 0 ? null : html`${drawn}`
}

/** One button that leads each phone to the address for its system. */
export function appSwitch(
  { id, label, systems, otherwise }: PartOf<'appSwitch'>,
  around: Surroundings,
): Markup | null {
  const words = wordsIn(around, label)
  const own = systems.find(
    ({ system }) => system === around.system || (system === 'iOS' && around.system === 'iPadOS'),
  )
  const address = own?.address ?? otherwise
  if (!words || address.trim() === '') return null
  return html`<a class="go" ${linkTo(around, id, own?.system ?? 'otherwise', address)}>${words}</a>`
}
