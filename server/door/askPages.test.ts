import { describe, expect, it } from 'vitest'
import { LANGUAGES, OWN_PAGES } from '@flimbo/core/words'
import { locationPage, passwordPage, waitSentence } from './askPages.ts'
import { consentPage } from './lightPage.ts'
import { ownWords, type Rendered } from './pages.ts'
import { voiceIn } from './voice.ts'

const SEAL = 'seal-1'
const WHY = 'So that <we> know which pier & tide you mean.'
const tags = Object.keys(LANGUAGES)
const markup = ({ body }: Rendered) => body.toString()
/** What a page says, without its tags, its style and its script. */
const saidBy = (page: Rendered) =>
  markup(page)
    .replace(/<(style|script)\b.*?<\/\1>/gs, '')
    .replace(/<[^>]*>/g, ' ')
const buttons = (page: Rendered) =>
  [...markup(page).matchAll(/<button[^>]*>([^<]*)<\/button>/g)].map(([, name]) => name)

describe.each(tags)('pages that ask something, in %s', (tag) => {
  const spoken = voiceIn([tag])
  const { password, location, onward } = spoken.words

  it('ask for a password by a field that bears its name, and tell what was wrong beside it', () => {
    const page = passwordPage(SEAL, spoken, password.wrong, 403)
    expect(markup(page)).toContain(`<label for="password">${password.label}</label>`)
    expect(markup(page)).toContain(`name="asked" value="${SEAL}"`)
    expect(markup(page)).toMatch(/aria-describedby="fault"/)
    expect([page.status, page.language]).toEqual([403, tag])
    expect(saidBy(page)).toContain(password.wrong)
    expect(buttons(page)).toEqual([password.goOn])
  })

  it('say how long to wait, in figures', () => {
    const sentence = waitSentence(61_200, spoken)
    // Arabic may be written with figures of its own.
    expect(sentence).toMatch(/62|٦٢/)
    expect(sentence).not.toContain('{')
  })

  it('ask where the phone is, and let it go on without', () => {
    const page = locationPage(SEAL, WHY, spoken)
    expect(buttons(page)).toEqual([location.tell, location.without])
    expect(markup(page)).toContain('So that &lt;we&gt; know which pier &amp; tide you mean.')
    expect(markup(page)).toContain(`<html lang="${tag}"`)
  })

  it('ask whether tags may fire, with two answers of the same weight', () => {
    const consent = { why: WHY, notice: 'https://saltmarsh.example/privacy' }
    const page = consentPage(consent, 'https://tern-sands.example/boats?a=1', SEAL, spoken)
    expect(buttons(page)).toEqual([onward.yes, onward.no])
    expect(saidBy(page)).toContain('tern-sands.example')
    expect(saidBy(page)).not.toContain('{host}')
    expect(markup(page)).toContain(`<a href="https://saltmarsh.example/privacy">${onward.privacy}</a>`)
    expect(markup(page).match(/class="quiet"/g)).toHaveLength(2)
  })

  it('say why a scan led nowhere in small pages, made once', () => {
    for (const name of OWN_PAGES) {
      const page = ownWords(name, spoken)
      expect(ownWords(name, spoken)).toBe(page)
      expect(page.body.length).toBeLessThan(30_000)
      expect(saidBy(page)).toContain(spoken.words.pages[name].text)
    }
  })
})
