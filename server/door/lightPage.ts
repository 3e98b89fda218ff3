import { randomBytes } from 'node:crypto'
import { hitAddress, VISIT_FIELDS, type Fired, type VisitTag, type VisitValues } from '@flimbo/core/visitTags'
import { document, escapeMarkup, type Rendered } from './pages.ts'

/** A light page goes on when its tags have fired, and after so long whether they have or not. */
const LONGEST_MS = 250

const hostOf = (address: string) => escapeMarkup(new URL(address).host)

/**
 * The page on the way on which visit tags fire. With script it goes on by itself within a quarter of a second,
 * without by a refresh; its own history entry is replaced. It tells the next page no referrer, as a redirect does not.
 */
export function lightPage(tags: readonly VisitTag[], visit: VisitValues): Rendered {
  const { address } = visit
  const nonce = randomBytes(12).toString('base64')
  const containers = tags.filter(({ kind }) => kind === 'container')
  const pixels = tags.filter(({ kind }) => kind !== 'container').map((tag) => hitAddress(tag, visit))
  const data = (tag: VisitTag) => VISIT_FIELDS.map((field) => `data-${field}="${escapeMarkup(field === 'id' ? tag.value : visit[field])}"`).join(' ')
  const target = JSON.stringify(address).replace(/</g, '\\u003c')
  const go = `const go=()=>location.replace(${target});setTimeout(go,${String(LONGEST_MS)});addEventListener('load',go)`
  const origins = [...new Set(pixels.map((pixel) => new URL(pixel).origin))].join(' ')
  return {
    status: 200, hidesReferrer: true,
    // What a container loads further is its own affair: it may load scripts, and tell whoever it tells.
    policy: containers.length === 0
      ? [`img-src ${origins}`, `script-src 'nonce-${nonce}'`]
      : [`img-src https: ${origins}`, `script-src 'nonce-${nonce}' 'strict-dynamic'`, `connect-src https: ${containers.map((tag) => new URL(hitAddress(tag, visit)).origin).join(' ')}`, 'frame-src https:'],
    body: document(
      'One moment',
      `<p>On to <a href="${escapeMarkup(address)}">${hostOf(address)}</a>.</p>${pixels.map((pixel) => `<img src="${escapeMarkup(pixel)}" alt="" width="1" height="1">`).join('')}${containers.map((tag) => `<script nonce="${nonce}" async src="${escapeMarkup(hitAddress(tag, visit))}" ${data(tag)}></script>`).join('')}`,
      `<script nonce="${nonce}">${go}</script><noscript><meta http-equiv="refresh" content="0;url=${escapeMarkup(address)}"></noscript>`,
    ),
  }
}

/** Asks whether tags may fire. Both answers lead on, and weigh the same; neither needs a script. */
export function consentPage({ why, notice }: Fired['consent'], address: string, sealed: string): Rendered {
  const more = notice === '' ? '' : `<p class="more"><a href="${escapeMarkup(notice)}">How we handle your data</a></p>`
  return {
    status: 200, hidesReferrer: true,
    body: document(
      `On to ${new URL(address).host}`,
      `<p>${escapeMarkup(why)}</p>${more}<form method="post"><input type="hidden" name="onward" value="${sealed}"><button name="agreed" value="yes" class="quiet">Yes, go on</button><button name="agreed" value="no" class="quiet">No, go on without</button></form>`,
    ),
  }
}
