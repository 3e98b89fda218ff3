import { request } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import { newPart, type Page, type Part } from '@flimbo/core/pages'
import { NO_RULES } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { pageVisits, VISIT_MS } from './pageVisits.ts'
import { pagePath, takeLanguage } from './pageRequests.ts'

let flimbo: Running
let campaignId: number
let page: Page
let code: Code
const link = (address: string, id = 'l'): Part => ({ ...newPart('link', id), label: { en: 'On' }, address })
const PARTS: Part[] = [
  { ...newPart('heading', 'h'), text: { en: 'Stop 1', de: 'Halt 1' } },
  link('https://saltmarsh.example/{language}/on?a=1'),
  {
    ...newPart('text', 't'),
    text: { en: [{ kind: 'paragraph', runs: [{ text: 'Read', link: 'https://saltmarsh.example/read' }] }] },
  },
  { ...newPart('contact', 'c'), given: 'Anna', phones: [{ kind: 'work', number: '+49 4931 5550142' }] },
]
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  page = await flimbo.page(campaignId, 'Stop 1', PARTS, { languages: ['en', 'de'] })
  code = await flimbo.codeTo(campaignId, page.id, 'stop1')
})
afterAll(() => flimbo.close())

const shown = async (path = '/stop1', headers = {}) => String((await flimbo.scan(path, headers)).body)
const hrefs = (markup: string) =>
  [...markup.matchAll(/href="([^"]+)"/g)].map(([, href = '']) => href.replaceAll('&amp;', '&'))
const tellPath = (markup: string) => /const u="([^"]+)"/.exec(markup)?.[1] ?? ''
const events = (codeId = code.id) =>
  flimbo.rows<{ kind: string }>(
    'SELECT kind FROM event_rows r JOIN event_ways w ON w.id = r.wayId WHERE codeId = ? ORDER BY r.id',
    codeId,
  )
const scans = () =>
  flimbo.rows<{ n: number }>('SELECT count(*) AS n FROM scans WHERE codeId = ?', code.id)[0]?.n ?? 0

describe('a link on a page', () => {
  it('takes along the language that was chosen, and what the scan brought', async () => {
    const markup = await shown('/stop1?ref=b')
    const english = await shown(hrefs(markup).find((href) => href.includes('/in/en')) ?? '')
    const [on = ''] = hrefs(english).filter((href) => href.includes('/l/l/'))
    expect(on).toMatch(/\?ref=b&in=en$/)
    // The address asks for the reader's own language, not for that of the page.
    expect((await flimbo.scan(on)).headers.location).toMatch(
      /^https:\/\/saltmarsh\.example\/de-DE\/on\?a=1&ref=b&utm_/,
    )
  })

  it('in a text is found again in each language', async () => {
    const [read = ''] = hrefs(await shown('/stop1', { 'accept-language': 'en' })).filter((href) =>
      href.includes('/l/t/'),
    )
    expect((await flimbo.scan(read, { 'accept-language': 'en' })).headers.location).toContain(
      '/read?utm_source',
    )
  })

  it('for the phone itself is there at once, and told of by script', async () => {
    const markup = await shown()
    expect(markup).toContain('href="tel:+4949315550142" data-link="c tel0"')
    const before = events().length
    await flimbo.scan(tellPath(markup), {}, 'POST', undefined, 'link c tel0')
    expect(events().slice(before)).toEqual([{ kind: 'link' }])
  })

  it('that was removed meanwhile leads to the page as it is now, and is no event', async () => {
    const other = await flimbo.page(campaignId, 'Shrinks', [link('https://saltmarsh.example/gone')])
    const shrinking = await flimbo.codeTo(campaignId, other.id, 'shrinks')
    const [gone = ''] = hrefs(await shown('/shrinks')).filter((href) => href.includes('/l/'))
    const content = { ...other.live, parts: [] }
    const { draftVersion } = other
    await flimbo.ask('PATCH', `/api/pages/${String(other.id)}/draft`, { draftVersion, content })
    await flimbo.ask('POST', `/api/pages/${String(other.id)}/publish`, { draftVersion: draftVersion + 1 })
    expect((await flimbo.scan(gone)).headers.location).toBe('/shrinks')
    expect(events(shrinking.id)).toEqual([{ kind: 'opened' }])
  })
})

describe('a token that is none of this code’s', () => {
  it.each([
    '/stop1/~',
    '/stop1/~x',
    '/stop1/~x/l/l/l',
    '/stop1/~1.1.1.1.1.1..',
    '/stop1/~%00/t/c',
    `/stop1/~${'a'.repeat(4000)}/l/l/l`,
    '/stop1/~../../../door.secret',
  ])('leads to the short link, and is neither scan nor event: %s', async (path) => {
    const [before, was] = [scans(), events().length]
    const { status, headers } = await flimbo.scan(path)
    expect([status, headers.location]).toEqual([302, '/stop1'])
    expect((await flimbo.scan(path, {}, 'POST', undefined, 'stayed - 5')).status).toBe(204)
    expect([scans(), events().length]).toEqual([before, was])
  })

  it('opens no page that stands behind a password', async () => {
    const secret = await flimbo.page(campaignId, 'Secret', [
      { ...newPart('heading', 'h'), text: { en: 'Hush' } },
    ])
    const locked = await flimbo.codeTo(campaignId, secret.id, 'locked')
    const { version } = await flimbo.route(locked.routeId)
    await flimbo.ask('PATCH', `/api/routes/${String(locked.routeId)}/password`, {
      version,
      password: 'low tide',
    })
    expect(await shown('/locked')).not.toContain('Hush')
    const token = tellPath(await shown()).split('~')[1] ?? ''
    for (const path of [`/locked/~${token}`, `/locked/~${token}/in/en`])
      expect((await flimbo.scan(path)).headers.location).toBe('/locked')
  })

  it('of an unknown short link is told of in words', async () => {
    expect((await flimbo.scan('/nosuchlink/~x/l/l/l')).status).toBe(404)
  })
})

describe('what a script tells', () => {
  it('is counted once for a scan, however many tell it at once', async () => {
    const path = tellPath(await shown())
    const before = events().length
    const answers = await Promise.all(
      Array.from({ length: 60 }, () => flimbo.scan(path, {}, 'POST', undefined, 'stayed - 5\nstayed - 15')),
    )
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([204]))
    expect(events().slice(before)).toEqual([{ kind: 'stayed' }, { kind: 'stayed' }])
  })

  it('is not read to its end where it has none', async () => {
    const path = tellPath(await shown())
    const before = events().length
    const outcome = await new Promise<string>((resolve) => {
      const asking = request({
        port: flimbo.doorPorts[0],
        path,
        method: 'POST',
        headers: { 'content-type': 'text/plain' },
      })
      asking.on('error', () => {
        resolve('cut')
      })
      asking.on('response', ({ statusCode }) => {
        resolve(String(statusCode))
      })
      asking.on('close', () => {
        resolve('cut')
      })
      const part = Buffer.alloc(1 << 16, 'stayed - 5\n')
      for (let i = 0; i < 500; i++) asking.write(part)
      asking.end()
    })
    expect(['cut', '204']).toContain(outcome)
    expect(events().length).toBe(before)
    expect((await flimbo.scan('/stop1')).status).toBe(200)
  })

  it('of a program, or of a page that is fetched ahead, is kept apart', async () => {
    const markup = await shown('/stop1', { 'sec-purpose': 'prefetch' })
    await flimbo.scan(tellPath(markup), {}, 'POST', undefined, 'stayed - 5')
    const rows = flimbo.rows<{ apart: string }>(
      'SELECT apart FROM event_rows r JOIN event_ways w ON w.id = r.wayId ORDER BY r.id DESC LIMIT 2',
    )
    expect(rows).toEqual([{ apart: 'prefetch' }, { apart: 'prefetch' }])
  })
})

describe('a page', () => {
  it('is asked for by GET and HEAD, and other methods are told so', async () => {
    const head = await flimbo.scan('/stop1', {}, 'HEAD')
    expect([head.status, head.body]).toEqual([200, ''])
    expect((await flimbo.scan('/stop1', {}, 'PUT')).status).toBe(405)
    expect((await flimbo.scan('/stop1', {}, 'POST')).status).toBe(405)
  })

  it.each(['in=xx', 'in=%3Cscript%3E', 'in=', 'in=en&in=de', '%', '?&&=&', 'a=%ff%fe'])(
    'is shown whatever stands in its query: %s',
    async (query) => {
      const { status, body } = await flimbo.scan(`/stop1?${query}`)
      expect([status, String(body).includes('<script>')]).toEqual([200, false])
    },
  )

  it('has a hundred parts, each with its link', async () => {
    const many = Array.from({ length: 100 }, (_each, i) =>
      link(`https://saltmarsh.example/${String(i)}`, `l${String(i)}`),
    )
    const large = await flimbo.page(campaignId, 'Hundred', many)
    await flimbo.codeTo(campaignId, large.id, 'hundred')
    const links = hrefs(await shown('/hundred'))
    expect(links).toHaveLength(100)
    expect((await flimbo.scan(links[99] ?? '')).headers.location).toContain('saltmarsh.example/99')
  })

  it('is shown as it was published by who scans while it is being published', async () => {
    const busy = await flimbo.page(campaignId, 'Busy', [{ ...newPart('heading', 'h'), text: { en: 'No 0' } }])
    await flimbo.codeTo(campaignId, busy.id, 'busy')
    let { draftVersion } = busy
    for (let n = 1; n <= 8; n++) {
      const parts = [{ ...newPart('heading', 'h'), text: { en: `No ${String(n)}` } }]
      const path = `/api/pages/${String(busy.id)}`
      await flimbo.ask('PATCH', `${path}/draft`, { draftVersion, content: { ...busy.live, parts } })
      const [published, ...seen] = await Promise.all([
        flimbo.ask<Page>('POST', `${path}/publish`, { draftVersion: draftVersion + 1 }),
        ...Array.from({ length: 10 }, () => shown('/busy')),
      ])
      ;({ draftVersion } = published.body)
      for (const markup of seen) expect(markup).toMatch(new RegExp(`>No ${String(n - 1)}<|>No ${String(n)}<`))
      expect(await shown('/busy')).toContain(`>No ${String(n)}<`)
    }
  })

  it('that a revision of long ago led to says that it is gone, never nothing', async () => {
    const { routeId } = await flimbo.code(campaignId, { slug: 'nowhere' })
    const gone = await flimbo.page(campaignId, 'Gone', [])
    const lane = { id: 'page', name: '', condition: EVERY_SCAN, resting: false } as const
    await flimbo.live(routeId, {
      ...NO_RULES,
      lanes: [{ ...lane, outcome: { kind: 'page', pageId: gone.id } }],
    })
    await flimbo.ask('DELETE', `/api/pages/${String(gone.id)}`)
    expect((await flimbo.scan('/nowhere')).status).toBe(200)
  })
})

describe('the name of a visit', () => {
  const visits = pageVisits(Buffer.from('a key of a front door'))
  const visit = {
    codeId: 7,
    pageId: 3,
    scanId: 123_456_789,
    routeId: 5,
    revisionId: 11,
    at: 1_764_000_000_000,
    repeat: true,
    apart: '',
  }

  it('says which scan was shown which page, for two days', () => {
    const token = visits.issue(visit)
    expect(token.length).toBeLessThan(70)
    expect(visits.read(token, 7, visit.at + 1000)).toEqual(visit)
    expect(visits.read(token, 7, visit.at + VISIT_MS + 1)).toBeNull()
    expect(visits.read(token, 8, visit.at + 1000)).toBeNull()
    expect(visits.read(token, 7, visit.at - 1)).toBeNull()
  })

  it('is good only as it was written, by who has the key', () => {
    const token = visits.issue({ ...visit, apart: 'test' })
    for (let i = 0; i < token.length; i++) {
      const other = token.slice(0, i) + (token[i] === 'a' ? 'b' : 'a') + token.slice(i + 1)
      expect(visits.read(other, 7, visit.at)).toBeNull()
    }
    expect(pageVisits(Buffer.from('another key')).read(token, 7, visit.at)).toBeNull()
    expect(visits.read(token, 7, visit.at)?.apart).toBe('test')
  })
})

describe('what follows a short link', () => {
  it.each([
    ['/pier/~abc/l/x', { link: '/pier', rest: 'abc/l/x' }],
    ['/pier/~', { link: '/pier', rest: '' }],
    ['/pier', null],
    ['/~f/x', null],
  ])('in %s', (path, parts) => {
    expect(pagePath(path)).toEqual(parts)
  })

  it.each([
    ['', '', ''],
    ['in=de', 'de', ''],
    ['a=1&in=de&b=2', 'de', 'a=1&b=2'],
    ['income=1', '', 'income=1'],
  ])('has its language taken out of %j', (query, chosen, rest) => {
    expect(takeLanguage(query)).toEqual({ chosen, rest })
  })
})
