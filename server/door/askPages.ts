import { randomBytes } from 'node:crypto'
import { escapeMarkup } from '@flimbo/core/fields'
import { fill, secondsIn, type Spoken } from '@flimbo/core/words'
import type { Voice } from './voice.ts'
import { document, type Rendered } from './pages.ts'

/** What each form of a scan that was asked something carries: the seal that says which scan. */
const sealedField = (asked: string) => `<input type="hidden" name="asked" value="${escapeMarkup(asked)}">`

/** The page before a password. `fault` says what was wrong with the last one. */
export function passwordPage(asked: string, spoken: Voice, fault = '', status = 200): Rendered {
  const { title, text, label, goOn } = spoken.words.password
  const wrong = fault === '' ? '' : `<p class="fault" role="alert" id="fault">${escapeMarkup(fault)}</p>`
  return {
    status,
    language: spoken.language,
    hidesReferrer: true,
    ...document(
      title,
      `<p>${escapeMarkup(text)}</p>${wrong}<form method="post">${sealedField(asked)}<label for="password">${escapeMarkup(label)}</label><input type="password" id="password" name="password" autocomplete="off" required autofocus${fault === '' ? '' : ' aria-describedby="fault"'}><button>${escapeMarkup(goOn)}</button></form>`,
      spoken,
    ),
  }
}

/** Said instead of looking at another password. */
export function waitSentence(ms: number, { words, language }: Spoken): string {
  return fill(words.password.wait, { time: secondsIn(language, Math.ceil(ms / 1000)) })
}

/**
 * Asks where the phone is. Going on without it works the same, script or no script; with it the phone's own
 * question comes first. The answer is sent in the body, so that it stands in no address and no log.
 */
export function locationPage(asked: string, why: string, spoken: Voice): Rendered {
  const { title, keep, tell, without } = spoken.words.location
  const nonce = randomBytes(12).toString('base64')
  const script = `const f=document.forms[0],b=document.getElementById('tell');b.hidden=!navigator.geolocation;b.onclick=()=>{b.disabled=true;navigator.geolocation.getCurrentPosition(({coords:c})=>{f.latitude.value=c.latitude;f.longitude.value=c.longitude;f.submit()},()=>f.submit(),{enableHighAccuracy:true,timeout:8000,maximumAge:60000})}`
  return {
    status: 200,
    policy: [`script-src 'nonce-${nonce}'`],
    hidesReferrer: true,
    ...document(
      title,
      `<p dir="auto">${escapeMarkup(why)}</p><form method="post">${sealedField(asked)}<input type="hidden" name="latitude"><input type="hidden" name="longitude"><label class="tick"><input type="checkbox" name="keep" value="yes"><span>${escapeMarkup(keep)}</span></label><button type="button" id="tell" hidden>${escapeMarkup(tell)}</button><button class="quiet">${escapeMarkup(without)}</button></form><script nonce="${nonce}">${script}</script>`,
      spoken,
    ),
  }
}
