import { randomBytes } from 'node:crypto'
import { escapeMarkup } from '@flimbo/core/pages'
import { document, type Rendered } from './pages.ts'

/** What each form of a scan that was asked something carries: the seal that says which scan. */
const sealedField = (asked: string) => `<input type="hidden" name="asked" value="${escapeMarkup(asked)}">`

/** The page before a password. `fault` says what was wrong with the last one. */
export function passwordPage(asked: string, fault = '', status = 200): Rendered {
  const wrong = fault === '' ? '' : `<p class="fault" role="alert" id="fault">${escapeMarkup(fault)}</p>`
  return {
    status,
    hidesReferrer: true,
    body: document(
      'Password, please',
      `<p>Whoever put up this code has put a password before it.</p>${wrong}<form method="post">${sealedField(asked)}<label for="password">Password</label><input type="password" id="password" name="password" autocomplete="off" required autofocus${fault === '' ? '' : ' aria-describedby="fault"'}><button>Go on</button></form>`,
    ),
  }
}

/** Said instead of looking at another password. */
export function waitSentence(ms: number): string {
  const seconds = Math.ceil(ms / 1000)
  return `There were too many wrong passwords. Please wait ${String(seconds)} ${seconds === 1 ? 'second' : 'seconds'}, then try again.`
}

/**
 * Asks where the phone is. Going on without it works the same, script or no script; with it the phone's own
 * question comes first. The answer is sent in the body, so that it stands in no address and no log.
 */
export function locationPage(asked: string, why: string): Rendered {
  const nonce = randomBytes(12).toString('base64')
  const script = `const f=document.forms[0],b=document.getElementById('tell');b.hidden=!navigator.geolocation;b.onclick=()=>{b.disabled=true;navigator.geolocation.getCurrentPosition(({coords:c})=>{f.latitude.value=c.latitude;f.longitude.value=c.longitude;f.submit()},()=>f.submit(),{enableHighAccuracy:true,timeout:8000,maximumAge:60000})}`
  return {
    status: 200,
    policy: [`script-src 'nonce-${nonce}'`],
    hidesReferrer: true,
    body: document(
      'Where are you?',
      `<p>${escapeMarkup(why)}</p><form method="post">${sealedField(asked)}<input type="hidden" name="latitude"><input type="hidden" name="longitude"><label class="tick"><input type="checkbox" name="keep" value="yes"><span>You may also keep where I am, rounded to about a kilometre.</span></label><button type="button" id="tell" hidden>Tell where I am</button><button class="quiet">Go on without</button></form><script nonce="${nonce}">${script}</script>`,
    ),
  }
}
