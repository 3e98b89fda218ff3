import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LANGUAGES } from '@flimbo/core/words'
import type { Code } from '@flimbo/core/codes'
import type { Route } from '@flimbo/core/routing'
import { BREMEN, GRONINGEN, PHONE, runningFlimbo, type Running } from '../tests/running.ts'

/** The phones of these tests are German. */
const WORDS = LANGUAGES.de.pages

interface ScanRow {
  id: number
  outcome: string
  apart: string | null
  isUnique: number
  visitor: string
  language: string
  referrer: string
  revisionId: number
  country: string
  region: string
  city: string
  latitude: number
  device: string
  system: string
  browser: string
}

let flimbo: Running
let code: Code
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  code = await flimbo.code((await flimbo.campaign()).id, { slug: 'pier', content: 'east gate' })
})
afterAll(() => flimbo.close())

const TAGS = 'utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26&utm_content=east+gate'
const newest = () =>
  flimbo.rows<ScanRow>(
    'SELECT * FROM scans JOIN places ON places.id = placeId JOIN agents ON agents.id = agentId ORDER BY scans.id DESC LIMIT 1',
  )[0]
const count = () => flimbo.rows<{ n: number }>('SELECT count(*) AS n FROM scans')[0]?.n ?? 0

describe('a short link', () => {
  it.each(['/PIER', '/pier', '/PiEr', '/pier/'])(
    'redirects %s with 302, no-store and no cookie',
    async (path) => {
      const { status, headers } = await flimbo.scan(path)
      expect(status).toBe(302)
      expect(headers.location).toBe(`https://saltmarsh.example/timetable?lang=de&${TAGS}#today`)
      expect(headers['cache-control']).toBe('no-store')
      expect(headers['set-cookie']).toBeUndefined()
    },
  )

  it('carries over what came with the scan', async () => {
    const { headers } = await flimbo.scan('/PIER?table=7&utm_source=forged&lang=en')
    expect(headers.location).toBe(`https://saltmarsh.example/timetable?lang=de&table=7&${TAGS}#today`)
  })

  it('leads to the new page with the very next scan after a change', async () => {
    const other = await flimbo.code(code.campaignId, {
      slug: 'change-me',
      destination: 'https://saltmarsh.example/old',
    })
    for (const [i, page] of ['one', 'two', 'three'].entries()) {
      await flimbo.scan('/change-me')
      const changed = await flimbo.ask<Route>('PATCH', `/api/routes/${String(other.routeId)}`, {
        version: i + 1,
        destination: `https://saltmarsh.example/${page}`,
      })
      expect(changed.status).toBe(200)
      expect((await flimbo.scan('/change-me')).headers.location).toContain(`/${page}?`)
      const revision = flimbo.rows<{ number: number }>(
        'SELECT number FROM revisions WHERE id = (SELECT max(revisionId) FROM scans) AND "of" = \'route\'',
      )[0]
      expect(revision?.number).toBe(i + 2)
    }
  })

  it('that did not exist when it was first tried works as soon as it is issued', async () => {
    expect((await flimbo.scan('/TOO-EARLY')).status).toBe(404)
    await flimbo.code(code.campaignId, { slug: 'too-early' })
    expect((await flimbo.scan('/TOO-EARLY')).status).toBe(302)
  })
})

describe('what leads nowhere', () => {
  it('is never a bare error: an unknown link', async () => {
    const before = count()
    for (const path of ['/NOTHING', '/%00', '/a/b', '/..%2f..', '/ä', `/${'x'.repeat(300)}`]) {
      const { status, headers, body } = await flimbo.scan(encodeURI(path).replace(/%25/g, '%'))
      expect([path, status, headers['content-type']]).toEqual([path, 404, 'text/html; charset=utf-8'])
      expect(body).toContain(WORDS.unknown.title)
    }
    expect(count()).toBe(before)
  })

  it.each([
    ['paused', 404, WORDS.paused.title],
    ['deleted', 410, WORDS.deleted.title],
  ] as const)('a %s code says so, is recorded, and comes back', async (state, status, title) => {
    const other = await flimbo.code(code.campaignId, { slug: `state-${state}` })
    await flimbo.ask('PATCH', `/api/codes/${String(other.id)}`, { version: 1, state })
    const answer = await flimbo.scan(`/STATE-${state}`)
    expect([answer.status, answer.body]).toEqual([status, expect.stringContaining(title)])
    expect(newest()).toMatchObject({ outcome: state, apart: null })
    await flimbo.ask('PATCH', `/api/codes/${String(other.id)}`, { version: 2, state: 'live' })
    expect((await flimbo.scan(`/STATE-${state}`)).status).toBe(302)
  })

  it('a paused route speaks for its codes', async () => {
    const other = await flimbo.code(code.campaignId, { slug: 'resting-route' })
    await flimbo.ask('PATCH', `/api/routes/${String(other.routeId)}`, { version: 1, state: 'paused' })
    expect((await flimbo.scan('/resting-route')).status).toBe(404)
  })

  it('pages are small, need no script and leak nothing', async () => {
    const { headers, body } = await flimbo.scan('/NOTHING')
    expect(Buffer.byteLength(body as string)).toBeLessThan(30_000)
    expect(body).not.toContain('<script')
    expect(headers['content-security-policy']).toContain("default-src 'none'")
  })
})

describe('the front door’s own pages', () => {
  const read = async (language: string) => flimbo.scan('/NOTHING-HERE', { 'accept-language': language })

  it.each([
    ['fr-CA,fr;q=0.9,en;q=0.8', 'fr', 'Ce lien court n’existe pas'],
    ['xx, nn-NO, en', 'nb', 'Denne korte lenken finnes ikke'],
    ['ja', 'en', 'No such short link'],
    ['', 'en', 'No such short link'],
    ['en;q=0.1, el;q=0.2, *;q=0.9', 'el', 'Δεν υπάρχει τέτοιος σύνδεσμος'],
  ])('speak to a reader of "%s" in %s', async (header, language, title) => {
    const { body, headers } = await read(header)
    expect(headers['content-language']).toBe(language)
    expect(body).toContain(`<html lang="${language}">`)
    expect(body).toContain(`<h1>${title}</h1>`)
  })

  it.each(['ar-EG', 'he'])('are written from the right for a reader of %s', async (language) => {
    expect((await read(language)).body).toContain(`<html lang="${language.slice(0, 2)}" dir="rtl">`)
  })
})

describe('the rest of the front door', () => {
  it('has a plain home page and keeps robots out', async () => {
    expect((await flimbo.scan('/')).body).toContain(WORDS.home.title)
    expect((await flimbo.scan('/robots.txt')).body).toBe('User-agent: *\nDisallow: /\n')
  })
  it('only lets read', async () => {
    const { status, headers } = await flimbo.scan('/PIER', {}, 'POST')
    expect([status, headers.allow]).toEqual([405, 'GET, HEAD'])
  })
  it('does not serve the office', async () => {
    expect((await flimbo.scan('/api/session')).status).toBe(404)
  })
})

describe('the record of a scan', () => {
  it('is on disk before the answer, with place, device, language and referrer host', async () => {
    const before = count()
    await flimbo.scan('/PIER', {
      'accept-language': 'nl;q=0.5, de-at',
      referer: 'https://chat.saltmarsh.example/secret?x=1',
    })
    expect(count()).toBe(before + 1)
    expect(newest()).toMatchObject({
      country: 'DE',
      region: 'Bremen',
      city: 'Bremen',
      device: 'phone',
      system: 'iOS',
      browser: 'Safari',
      language: 'de-AT',
      referrer: 'chat.saltmarsh.example',
      outcome: 'redirect',
      apart: null,
    })
    expect(newest()?.latitude).toBeCloseTo(53.1, 0)
  })

  it('keeps neither network address nor user agent', async () => {
    await flimbo.scan('/PIER', { 'x-forwarded-for': GRONINGEN })
    const tables = flimbo.rows<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'")
    const everything = tables.map(({ name }) => JSON.stringify(flimbo.rows(`SELECT * FROM "${name}"`))).join()
    expect(newest()?.city).toBe('Groningen')
    for (const secret of [GRONINGEN, BREMEN, 'Mozilla', 'AppleWebKit'])
      expect(everything).not.toContain(secret)
  })

  it.each([
    ['HEAD', {}, 'head', 'HEAD'],
    ['prefetch', { 'sec-purpose': 'prefetch;prerender' }, 'prefetch', 'GET'],
    [
      'a crawler',
      { 'user-agent': 'Mozilla/5.0 (compatible; Googlebot/2.1; +http://www.google.com/bot.html)' },
      'crawler',
      'GET',
    ],
    ['a link preview', { 'user-agent': 'WhatsApp/2.23.20.0' }, 'preview', 'GET'],
    ['no user agent', { 'user-agent': '' }, 'crawler', 'GET'],
    [
      'a forged rehearsal, which counts like any scan',
      { 'flimbo-rehearsal': '9999999999999~192.0.2.1~forged' },
      null,
      'GET',
    ],
  ] as const)('of %s is answered and kept apart', async (_name, headers, apart, method) => {
    const { status } = await flimbo.scan('/PIER', headers, method)
    expect([status, newest()?.apart]).toEqual([302, apart])
    if (apart !== null) expect(newest()?.isUnique).toBe(0)
  })

  it('is unique once a day for one visitor at one code', async () => {
    await flimbo.code(code.campaignId, { slug: 'uniq-a' })
    await flimbo.code(code.campaignId, { slug: 'uniq-b' })
    const uniques: (number | undefined)[] = []
    for (const [slug, address, agent] of [
      ['uniq-a', '198.51.100.1', PHONE],
      ['uniq-a', '198.51.100.1', PHONE],
      ['uniq-b', '198.51.100.1', PHONE],
      ['uniq-a', '198.51.100.2', PHONE],
      ['uniq-a', '198.51.100.1', `${PHONE} X`],
    ] as const) {
      await flimbo.scan(`/${slug}`, { 'x-forwarded-for': address, 'user-agent': agent })
      uniques.push(newest()?.isUnique)
    }
    expect(uniques).toEqual([1, 0, 1, 1, 1])
  })

  it('takes the nearest address no trusted proxy vouches for', async () => {
    await flimbo.scan('/PIER', { 'x-forwarded-for': `198.51.100.7, ${GRONINGEN}` })
    expect(newest()?.city).toBe('Groningen')
  })
})

describe('without a trusted proxy', () => {
  it('nobody’s word is taken on where a scan comes from', async () => {
    const plain = await runningFlimbo({ FLIMBO_TRUST_PROXY: '' })
    try {
      await plain.setUp()
      await plain.code((await plain.campaign()).id, { slug: 'pier' })
      await plain.scan('/PIER')
      expect(
        plain.rows<{ country: string }>('SELECT country FROM scans JOIN places ON places.id = placeId'),
      ).toEqual([{ country: '' }])
    } finally {
      await plain.close()
    }
  })
})
