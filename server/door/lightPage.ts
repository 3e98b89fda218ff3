import { randomBytes } from 'node:crypto'
import { escapeMarkup } from '@flimbo/core/fields'
import { hitAddress, VISIT_FIELDS, type Fired, type VisitTag, type VisitValues } from '@flimbo/core/visitTags'
import { fill } from '@flimbo/core/words'
import type { Voice } from './voice.ts'
import { document, type Rendered } from './pages.ts'

/** A light page goes on when its tags have fired, and after so long whether they have or not. */
const LONGEST_MS = 200

/** A value as a script reads it, in markup: nothing in it can end the script. */
const inScript = (value: unknown) => JSON.stringify(value).replace(/</g, '\\u003c')
const hostOf = (address: string) => escapeMarkup(new URL(address).host)

/**
 * The page on the way on which visit tags fire. With script it goes on by itself within a fifth of a second,
 * without by a refresh; its own history entry is replaced. It tells the next page no referrer, as a redirect does not.
 *
 * @param address where it leads: with the scan's reference, which no tag is told
 */
export function lightPage(
  tags: readonly VisitTag[],
  visit: VisitValues,
  address: string,
  spoken: Voice,
): Rendered {
  const nonce = randomBytes(12).toString('base64')
  const containers = tags
    .filter(({ kind }) => kind === 'container')
    .map((tag) => ({ tag, source: hitAddress(tag, visit) }))
  const pixels = tags.filter(({ kind }) => kind !== 'container').map((tag) => hitAddress(tag, visit))
  const data = (tag: VisitTag) =>
    VISIT_FIELDS.map(
      (field) => `data-${field}="${escapeMarkup(field === 'id' ? tag.value : visit[field])}"`,
    ).join(' ')
  const script = `const go=()=>location.replace(${inScript(address)});setTimeout(go,${String(LONGEST_MS)});Promise.all([new Promise(d=>addEventListener('load',d)),...${inScript(pixels)}.map(u=>new Promise(d=>{const i=new Image;i.onload=i.onerror=d;i.src=u}))]).then(go)`
  // A picture in the page would hold the refresh up for as long as its collector does not answer; what is only loaded ahead does not.
  const plain = `${pixels.map((pixel) => `<link rel="preload" as="image" href="${escapeMarkup(pixel)}">`).join('')}<meta http-equiv="refresh" content="0;url=${escapeMarkup(address)}">`
  const onTo = fill(escapeMarkup(spoken.words.onward.onTo), {
    host: `<a href="${escapeMarkup(address)}">${hostOf(address)}</a>`,
  })
  const originsOf = (addresses: readonly string[]) => [
    ...new Set(addresses.map((each) => new URL(each).origin)),
  ]
  return {
    status: 200,
    hidesReferrer: true,
    // What a container loads further is its own affair: it may load scripts, and tell whoever it tells.
    policy:
      containers.length === 0
        ? [`img-src ${originsOf(pixels).join(' ')}`, `script-src 'nonce-${nonce}'`]
        : [
            `img-src ${['https:', ...originsOf(pixels)].join(' ')}`,
            `script-src 'nonce-${nonce}' 'strict-dynamic'`,
            `connect-src ${['https:', ...originsOf(containers.map(({ source }) => source))].join(' ')}`,
            'frame-src https:',
          ],
    ...document(
      spoken.words.pages.busy.title,
      `<p>${onTo}</p>${containers.map(({ tag, source }) => `<script nonce="${nonce}" async src="${escapeMarkup(source)}" ${data(tag)}></script>`).join('')}`,
      spoken,
      `<script nonce="${nonce}">${script}</script><noscript>${plain}</noscript>`,
    ),
  }
}

/** Asks whether tags may fire. Both answers lead on, and weigh the same; neither needs a script. */
export function consentPage(
  { why, notice }: Fired['consent'],
  address: string,
  sealed: string,
  spoken: Voice,
): Rendered {
  const { onTo, privacy, yes, no } = spoken.words.onward
  const more = notice === '' ? '' : `<p><a href="${escapeMarkup(notice)}">${escapeMarkup(privacy)}</a></p>`
  return {
    status: 200,
    hidesReferrer: true,
    ...document(
      fill(onTo, { host: new URL(address).host }),
      `<p dir="auto">${escapeMarkup(why)}</p>${more}<form method="post"><input type="hidden" name="onward" value="${sealed}"><button name="agreed" value="yes" class="quiet">${escapeMarkup(yes)}</button><button name="agreed" value="no" class="quiet">${escapeMarkup(no)}</button></form>`,
      spoken,
    ),
  }
}
