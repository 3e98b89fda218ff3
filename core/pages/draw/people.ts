import { phoneDigits } from '../../contents/index.ts'
import { html, trusted, type Markup, said } from '../../fields/index.ts'
import type { PartOf } from '../parts.ts'
import { portraitOf } from './media.ts'
import { deviceLinkTo, linkTo, wordsIn } from './shared.ts'
import type { Surroundings } from './surroundings.ts'

/** A person's name, or else the organisation's: what phones file them by. */
export const contactName = ({ given, family, organisation }: PartOf<'contact'>): string =>
  [given, family]
    .map((each) => each.trim())
    .filter(Boolean)
    .join(' ') || organisation.trim()

/** A postal address as an envelope has it. */
const addressLines = ({ street, postcode, town, country }: PartOf<'contact'>['addresses'][number]) =>
  [
    street,
    [postcode, town]
      .map((each) => each.trim())
      .filter(Boolean)
      .join(' '),
    country,
  ]
    .map((each) => each.trim())
    .filter(Boolean)

export function contactPart(contact: PartOf<'contact'>, around: Surroundings): Markup | null {
  const { id, role, organisation, phones, emails, addresses, sites, note } = contact
  const name = contactName(contact)
  if (name === '') return null
  const { saveContact, share, addToWallet } = around.spoken.words.parts
  const pass = around.passHref?.(id)
  const lines: Markup[] = [
    ...phones.map(
      ({ number }, i) =>
        html`<li><a${deviceLinkTo(around, id, `tel${String(i)}`, `tel:${phoneDigits(number)}`)}>${number.trim()}</a></li>`,
    ),
    ...emails.map(
      ({ address }, i) =>
        html`<li><a${deviceLinkTo(around, id, `mail${String(i)}`, `mailto:${address.trim()}`)}>${address.trim()}</a></li>`,
    ),
    ...sites
      .filter(({ address }) => address.trim() !== '')
      .map(
        ({ name: called, address }, i) =>
          html`<li><a${linkTo(around, id, `site${String(i)}`, address)}>${called.trim() || address.trim()}</a></li>`,
      ),
    ...addresses.flatMap((each) => {
      const written = addressLines(each)
      return written.length === 0
        ? []
        : [
            html`<li>
              <address>${written.map((line, i) => html`${i > 0 && html`<br />`}${line}`)}</address>
            </li>`,
          ]
    }),
  ]
  const doing = wordsIn(around, role)
  const more = wordsIn(around, note)
  const at = organisation.trim() === name ? '' : organisation.trim()
  return html`<section class="card">
    ${portraitOf(contact, around)}
    <h2>${name}</h2>
    ${doing && html`<p>${doing}</p>`}${at !== '' && html`<p>${at}</p>`}${
      lines.length > 0 &&
      html`<ul class="lines">
        ${lines}
      </ul>`
    }${more && html`<p>${more}</p>`}<a class="go" href="${around.takeHref(id)}">${saveContact}</a
    >${pass !== undefined && html`<a class="go quiet" href="${pass}">${addToWallet}</a>`}<button
      class="go quiet"
      type="button"
      data-share="${name}"
      data-of="${id}"
      hidden
    >
      ${share}
    </button>
  </section>`
}

export function placePart(
  { id, label, address, point, isMapped }: PartOf<'place'>,
  around: Surroundings,
): Markup | null {
  const words = wordsIn(around, label)
  if (!words) return null
  const where = wordsIn(around, address)
  const { text } = said(around, address)
  const query = [said(around, label).text, text.replaceAll('\n', ', ')].filter(Boolean).join(', ')
  // RFC 5870; phones that know no such address are offered the one beside it.
  const geo = point && `geo:${String(point.latitude)},${String(point.longitude)}`
  const web = point
    ? `https://www.openstreetmap.org/?mlat=${String(point.latitude)}&mlon=${String(point.longitude)}#map=16/${String(point.latitude)}/${String(point.longitude)}`
    : `https://www.openstreetmap.org/search?query=${encodeURIComponent(query)}`
  const map = isMapped && point ? around.mapOf(point) : ''
  const { openInMaps, mapOnWeb } = around.spoken.words.parts
  const links = [
    ...(geo === null ? [] : [html`<a class="go quiet" ${linkTo(around, id, 'geo', geo)}>${openInMaps}</a>`]),
    html`<a${linkTo(around, id, 'web', web)}>${geo === null ? openInMaps : mapOnWeb}</a>`,
  ]
  return html`<section class="place">
    <h2>${words}</h2>
    ${where && html`<address>${where}</address>`}${map !== '' && html`<div class="map">${trusted(map)}</div>`}
    <p class="ways">${links}</p>
  </section>`
}
