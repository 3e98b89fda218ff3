import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { NO_RULES, openLife, type Rules } from '@flimbo/core/routing'
import { NO_TAGS, type VisitTag, type VisitValues } from '@flimbo/core/visitTags'
import { BREMEN, http, PHONE, runningFlimbo, type Running } from '../tests/running.ts'
import { SEALED_MS, seals } from './sealed.ts'

const TAG: VisitTag = {
  id: 'site',
  name: 'Site',
  kind: 'measurement',
  value: 'M-4711',
  address:
    'https://collector.example/hit?id={id}&dl={address}&source={source}&content={content}&country={country}',
  firing: 'page',
  body: '',
  resting: false,
}
const TAGS: VisitTag[] = [
  TAG,
  {
    ...TAG,
    id: 'box',
    name: 'Box',
    kind: 'container',
    value: 'T-1',
    address: 'https://tags.collector.example/container.js?id={id}',
  },
  {
    ...TAG,
    id: 'crowd',
    name: 'Crowd',
    kind: 'audience',
    value: 'A-9',
    address: 'https://crowd.collector.example/px/{id}?v={visit}',
    firing: 'asked',
  },
]
const consent = { why: 'May we <count> you?', notice: 'https://saltmarsh.example/privacy' }
let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  await define(TAGS)
})
afterAll(() => flimbo.close())

async function define(tags: VisitTag[]): Promise<void> {
  const { version } = (await flimbo.ask<{ version: number }>('GET', '/api/visit-tags')).body
  const { status, body } = await flimbo.ask('PATCH', '/api/visit-tags', { value: { tags, consent }, version })
  if (status !== 200) throw new Error(JSON.stringify(body))
}
async function fired(slug: string, tags: string[], rules: Partial<Rules> = {}): Promise<Code> {
  const code = await flimbo.code(campaignId, { slug, content: 'a"><script>' })
  await flimbo.live(code.routeId, { ...NO_RULES, ...rules, tags })
  return code
}
const page = async (path: string, headers = {}) => {
  const { status, body, headers: sent } = await flimbo.scan(path, headers)
  return { status, body: String(body), policy: String(sent['content-security-policy']), sent }
}
const FINAL =
  'https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26&utm_content=a%22%3E%3Cscript%3E#today'
const markup = (text: string) => text.replace(/&/g, '&amp;')
const answer = (slug: string, fields: Record<string, string>) =>
  http(
    'POST',
    flimbo.ports.door,
    `/${slug}`,
    { 'user-agent': PHONE, 'x-forwarded-for': BREMEN, 'content-type': 'application/x-www-form-urlencoded' },
    new URLSearchParams(fields).toString(),
  )
const sealedIn = (body: string) => /name="onward" value="([^"]+)"/.exec(body)?.[1] ?? ''
const scans = (code: Code) => flimbo.rows('SELECT outcome, apart FROM scans WHERE codeId = ?', code.id)

describe('a light page', () => {
  it('fires its tags and goes on, with script or without, once the scan is on disk', async () => {
    const code = await fired('light', ['site'])
    const { status, body, policy, sent } = await page('/light')
    expect([status, sent['cache-control'], sent['referrer-policy'], sent['set-cookie']]).toEqual([
      200,
      'no-store',
      'no-referrer',
      undefined,
    ])
    const hit =
      /<noscript><link rel="preload" as="image" href="([^"]+)"/.exec(body)?.[1]?.replace(/&amp;/g, '&') ?? ''
    expect(Object.fromEntries(new URL(hit).searchParams)).toEqual({
      id: 'M-4711',
      dl: FINAL,
      source: 'pier-poster',
      content: 'a"><script>',
      country: 'DE',
    })
    expect(body).toContain(`<meta http-equiv="refresh" content="0;url=${markup(FINAL)}"></noscript>`)
    expect(body).toContain(`...[${JSON.stringify(hit).replace(/</g, '\\u003c')}].map`)
    expect(body).toContain(`location.replace(${JSON.stringify(FINAL)})`)
    expect(policy).toMatch(
      /default-src 'none'.*img-src https:\/\/collector\.example; script-src 'nonce-[A-Za-z0-9+/=]+'$/,
    )
    expect([body.length < 5000, scans(code)]).toEqual([true, [{ outcome: 'redirect', apart: null }]])
  })

  it('tells a container everything it may know, and lets it load what it needs', async () => {
    await fired('box', ['box'])
    const { body, policy } = await page('/box')
    const script =
      /<script nonce="[^"]+" async src="https:\/\/tags\.collector\.example\/container\.js\?id=T-1" ([^>]*)>/.exec(
        body,
      )?.[1] ?? ''
    for (const part of [
      'data-id="T-1"',
      'data-campaign="summer-26"',
      'data-content="a&quot;&gt;&lt;script&gt;"',
      'data-device="phone"',
    ])
      expect(script).toContain(part)
    expect(policy).toContain("'strict-dynamic'")
  })

  it('is for people: programs, and routes without tags, are sent on plainly', async () => {
    const code = await fired('plain', ['site'])
    expect((await page('/plain', { 'user-agent': 'Mozilla/5.0 (compatible; Examplebot/1.0)' })).status).toBe(
      302,
    )
    expect((await page('/plain', { 'sec-purpose': 'prefetch' })).status).toBe(302)
    expect((await flimbo.scan('/plain', {}, 'HEAD')).status).toBe(302)
    await flimbo.live(code.routeId, NO_RULES)
    expect((await page('/plain')).sent.location).toBe(FINAL)
  })

  it('is left out by the next scan after a tag was laid to rest', async () => {
    await fired('rest', ['site'])
    await define(TAGS.map((tag) => ({ ...tag, resting: tag.id === 'site' })))
    expect((await page('/rest')).status).toBe(302)
    await define(TAGS)
    expect((await page('/rest')).status).toBe(200)
  })
})

describe('asking first', () => {
  it('fires nothing yet, and says why in the workspace’s words', async () => {
    await fired('asked', ['site', 'crowd'])
    const { status, body, policy } = await page('/asked')
    expect([
      status,
      body.includes('May we &lt;count&gt; you?'),
      body.includes('href="https://saltmarsh.example/privacy"'),
      body.includes('collector'),
      policy.includes('script-src'),
    ]).toEqual([200, true, true, false, false])
  })

  it('goes on either way, with the tags that were agreed to, and the scan counts once', async () => {
    const code = await fired('either', ['site', 'crowd'], { life: { ...openLife('UTC'), limit: 5 } })
    const sealed = sealedIn((await page('/either')).body)
    const yes = await answer('either', { onward: sealed, agreed: 'yes' })
    expect([
      yes.status,
      /crowd\.collector\.example\/px\/A-9\?v=[0-9a-f-]{36}/.test(String(yes.body)),
      String(yes.body).includes('M-4711'),
    ]).toEqual([200, true, true])
    const no = await answer('either', { onward: sealed, agreed: 'no' })
    expect([String(no.body).includes('crowd'), String(no.body).includes('M-4711')]).toEqual([false, true])
    expect([scans(code), (await flimbo.route(code.routeId)).taken?.total]).toEqual([
      [{ outcome: 'redirect', apart: null }],
      1,
    ])
  })

  it('leads straight on where nothing is left to fire', async () => {
    const code = await fired('nothing', ['crowd'])
    const sealed = sealedIn((await page('/nothing')).body)
    expect(await answer('nothing', { onward: sealed, agreed: 'no' })).toMatchObject({
      status: 303,
      headers: { location: FINAL },
    })
    await flimbo.live(code.routeId, NO_RULES)
    expect(await answer('nothing', { onward: sealed, agreed: 'yes' })).toMatchObject({
      status: 303,
      headers: { location: FINAL },
    })
  })

  it('trusts only what it sealed itself: anything else is scanned anew', async () => {
    await fired('forged', ['crowd'])
    const sealed = sealedIn((await page('/forged')).body)
    const [content = '', signature = ''] = sealed.split('.')
    const elsewhere = Buffer.from(
      Buffer.from(content, 'base64url').toString().replace('saltmarsh.example', 'elsewhere.example'),
    ).toString('base64url')
    for (const forged of [
      `${elsewhere}.${signature}`,
      `${sealed}.x`,
      content,
      'x',
      '.',
      `${content}.${signature.slice(2)}`,
    ])
      expect([forged, (await answer('forged', { onward: forged, agreed: 'no' })).headers.location]).toEqual([
        forged,
        '/forged',
      ])
    await fired('another', ['crowd'])
    expect((await answer('another', { onward: sealed, agreed: 'no' })).headers.location).toBe('/another')
  })
})

describe('a seal', () => {
  it('is good for half an hour, with one key and for one purpose', () => {
    const visit = { address: 'https://saltmarsh.example/' } as VisitValues
    const [mine, theirs] = [seals(), seals()]
    const sealed = mine.seal(7, { kind: 'onward', visit, goesTo: visit.address }, 1000)
    expect([
      mine.open(7, 'onward', sealed, 1000 + SEALED_MS)?.visit,
      mine.open(7, 'onward', sealed, 1001 + SEALED_MS),
      mine.open(8, 'onward', sealed, 1000),
      theirs.open(7, 'onward', sealed, 1000),
      mine.open(7, 'asked', sealed, 1000),
    ]).toEqual([visit, null, null, null, null])
  })
})

it('has no tags defined to begin with', async () => {
  const fresh = await runningFlimbo()
  await fresh.setUp()
  expect((await fresh.ask('GET', '/api/visit-tags')).body).toEqual({ value: NO_TAGS, version: 0 })
  await fresh.close()
})
