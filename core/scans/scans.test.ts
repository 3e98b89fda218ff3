import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  acceptedLanguages,
  APART,
  apartAfter,
  apartKind,
  isPersons,
  deviceOf,
  preferredLanguage,
  primaryLanguage,
  programKind,
  referrerHost,
} from './index.ts'

const SAFARI =
  'Mozilla/5.0 (iPhone; CPU iPhone OS 17_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.5 Mobile/15E148 Safari/604.1'

describe('Accept-Language (RFC 9110, section 12.5.4)', () => {
  it.each([
    // The section's own example: Danish is preferred, but British English and other English are taken.
    ['da, en-gb;q=0.8, en;q=0.7', ['da', 'en-GB', 'en']],
    ['en;q=0.2, de', ['de', 'en']],
    ['de-at;q=0.5,de-de;q=0.5', ['de-AT', 'de-DE']],
    ['zh-hant-tw', ['zh-Hant-TW']],
    ['nl;q=0, en', ['en']],
    ['*;q=0.5, fr;q=0.1', ['fr']],
    ['de;q=1.0;x=1', ['de']],
    ['not_a_tag, de', ['de']],
    ['*', []],
    ['', []],
    [',,;q=1', []],
  ])('reads %j as %j', (header, tags) => {
    expect(acceptedLanguages(header).map(({ tag }) => tag)).toEqual(tags)
  })

  it('takes the first of the heaviest', () => {
    expect(preferredLanguage('en;q=0.9,de-AT,nl')).toBe('de-AT')
    expect(primaryLanguage('de-AT')).toBe('de')
    expect(preferredLanguage('')).toBe('')
  })

  it('never throws, and answers in order of weight', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (header) => {
        const weights = acceptedLanguages(header).map(({ weight }) => weight)
        expect(weights).toEqual([...weights].sort((a, b) => b - a))
        expect(preferredLanguage(header).length).toBeLessThanOrEqual(35)
      }),
    )
  })
})

describe('User-Agent', () => {
  it.each([
    [SAFARI, 'phone', 'iOS', '17.5', 'Safari'],
    [
      'Mozilla/5.0 (Linux; Android 15; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/138.0.0.0 Mobile Safari/537.36',
      'phone',
      'Android',
      '15',
      'Chrome',
    ],
    [
      'Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0',
      'phone',
      'Android',
      '15',
      'Firefox',
    ],
    [
      'Mozilla/5.0 (iPad; CPU OS 17_6 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.6 Mobile/15E148 Safari/604.1',
      'tablet',
      'iOS',
      '17.6',
      'Safari',
    ],
    [
      'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/138.0.0.0 Safari/537.36 Edg/138.0.0.0',
      'computer',
      'Windows',
      '10',
      'Edge',
    ],
    [
      'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Safari/605.1.15',
      'computer',
      'macOS',
      '10.15.7',
      'Safari',
    ],
    [
      'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
      'computer',
      'Linux',
      '',
      'Firefox',
    ],
    ['something of its own', 'other', '', '', ''],
    ['', 'other', '', '', ''],
  ])('%s', (userAgent, type, system, systemVersion, browser) => {
    expect(deviceOf(userAgent)).toMatchObject({
      type,
      system: expect.stringContaining(system) as string,
      browser,
    })
    if (systemVersion) expect(deviceOf(userAgent).systemVersion).toBe(systemVersion)
  })

  it('keep no more of a user agent than a version', () => {
    const long = deviceOf(
      `Mozilla/5.0 (Linux; Android ${'1'.repeat(400)}${'.2'.repeat(200)}; X) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/126.0.0.0 Mobile Safari/537.36`,
    )
    const words = deviceOf(
      'Mozilla/5.0 (Linux; Android somebody@saltmarsh.example; X) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/126.0.0.0 Mobile Safari/537.36',
    )
    expect(long.systemVersion.length).toBeLessThan(25)
    expect(words.systemVersion).not.toContain('@')
  })

  it('is read whatever it says', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 600 }), (userAgent) => {
        expect(typeof deviceOf(userAgent).system).toBe('string')
      }),
    )
  })
})

describe('what is kept apart', () => {
  it('is everything but what a person did, asked something before or not', () => {
    const persons = [null, ...APART].filter(isPersons)
    expect(persons).toEqual([null, 'onward'])
    for (const apart of [null, ...APART]) expect(apartAfter(apart)).toBe(persons.includes(apart) ? '' : apart)
  })

  const person = { method: 'GET', purpose: '', test: false, onward: false, program: null } as const
  it('is not a person’s device that asks', () => {
    expect(apartKind(person)).toBeNull()
  })
  it.each([
    [{ ...person, method: 'HEAD' }, 'head'],
    // Fetch Standard: Sec-Purpose is "prefetch", with "prerender" or others as parameters.
    [{ ...person, purpose: 'prefetch' }, 'prefetch'],
    [{ ...person, purpose: 'prefetch;prerender' }, 'prefetch'],
    [{ ...person, program: 'crawler' as const }, 'crawler'],
    [{ ...person, program: 'preview' as const }, 'preview'],
    [{ ...person, test: true, method: 'HEAD' }, 'test'],
    [{ ...person, onward: true }, 'onward'],
    [{ ...person, onward: true, program: 'crawler' as const }, 'crawler'],
  ])('%j as %s', (signs, kind) => {
    expect(apartKind(signs)).toBe(kind)
  })

  it.each([
    ['Mozilla/5.0 (compatible; Googlebot/2.1; +http://www.google.com/bot.html)', 'crawler'],
    ['facebookexternalhit/1.1', 'preview'],
    ['WhatsApp/2.23.20.0', 'preview'],
    ['Mozilla/5.0 (compatible; ChatLinkPreviewBot/1.0)', 'preview'],
    ['curl/8.5.0', 'crawler'],
    ['', 'crawler'],
    [SAFARI, null],
  ])('%j is %s', (userAgent, kind) => {
    expect(programKind(userAgent)).toBe(kind)
  })
})

describe('the referrer', () => {
  it.each([
    ['https://www.saltmarsh.example/page?secret=1', 'www.saltmarsh.example'],
    ['http://Saltmarsh.Example:8080/', 'saltmarsh.example'],
    ['android-app://com.app.example/', ''],
    ['not an address', ''],
    ['', ''],
    [`https://saltmarsh.example/${'x'.repeat(5000)}`, ''],
  ])('of %j is %j: the host and no more', (header, host) => {
    expect(referrerHost(header)).toBe(host)
  })
})
