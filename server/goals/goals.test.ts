import { createHmac } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { GoalEvent, GoalRow, GoalSettings, GoalSite, SitePage } from '@flimbo/core/goals'
import type { Answers } from '@flimbo/core/results'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaign: Campaign
let site: GoalSite
let secret: string
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaign = await flimbo.campaign()
  site = (await flimbo.ask<GoalSite>('GET', '/api/goal-site')).body
  secret = (await flimbo.ask<{ secret: string }>('GET', '/api/goal-site/secret')).body.secret
})
afterAll(() => flimbo.close())

const carry = async (hours: number) => {
  const { body } = await flimbo.ask<Campaign>('GET', `/api/campaigns/${String(campaign.id)}`)
  await flimbo.ask('PATCH', `/api/campaigns/${String(campaign.id)}`, {
    version: body.version,
    referenceHours: hours,
  })
}
const goal = async (more: Partial<GoalSettings>) => {
  const value = {
    ...{ name: 'Goal', kind: 'sent', pattern: '', selector: '', value: null, counts: 'scan' },
    ...{ signedOnly: false, isOn: true, ...more },
  }
  return (await flimbo.ask<GoalRow>('POST', '/api/goals', { campaignId: campaign.id, value })).body
}
/** A scan, and the reference that its redirect carries. */
async function scanned(headers: Record<string, string> = {}): Promise<string> {
  const code = await flimbo.code(campaign.id)
  const { headers: given } = await flimbo.scan(`/${code.slug}`, headers)
  return new URL(given.location ?? '').searchParams.get('flimbo') ?? ''
}
const pathOf = (address: string) => new URL(address).pathname
const report = (told: unknown, headers: Record<string, string> = {}) =>
  flimbo.scan(
    pathOf(site.call).replace('/calls', ''),
    { 'content-type': 'text/plain', origin: 'https://saltmarsh.example', ...headers },
    'POST',
    undefined,
    typeof told === 'string' ? told : JSON.stringify(told),
  )
const base64 = (value: unknown) => Buffer.from(JSON.stringify(value)).toString('base64url')
/** A JSON Web Token by hand (RFC 7519; HS256 of RFC 7518): another's library is to be read, not our own. */
function token(claims: object, key = secret, header: object = { alg: 'HS256', typ: 'JWT' }): string {
  const text = `${base64(header)}.${base64(claims)}`
  return `${text}.${createHmac('sha256', key).update(text).digest('base64url')}`
}
const call = (text: string) =>
  flimbo.scan(pathOf(site.call), { 'content-type': 'application/jwt' }, 'POST', undefined, text)
const now = () => Math.floor(Date.now() / 1000)
const reachedBy = async (id: number) => {
  const { body } = await flimbo.ask<{ rows: GoalRow[] }>(
    'GET',
    `/api/goals?campaignId=${String(campaign.id)}`,
  )
  const found = body.rows.find((row) => row.id === id)
  return [found?.reached, found?.worth]
}

describe('the reference of a scan', () => {
  it('is carried only where the campaign says so, and the rest of the address stays', async () => {
    expect(await scanned()).toBe('')
    await carry(24)
    const code = await flimbo.code(campaign.id)
    const { status, headers } = await flimbo.scan(`/${code.slug}`)
    expect(status).toBe(302)
    const url = new URL(headers.location ?? '')
    expect([url.searchParams.get('lang'), url.searchParams.get('utm_source'), url.hash]).toEqual([
      ...['de', 'pier-poster', '#today'],
    ])
    expect(url.searchParams.get('flimbo')).toMatch(/^[\w.-]{30,80}$/)
  })

  it('is good for none but who it was signed for, and not for ever', async () => {
    const { id } = await goal({ key: 'window', counts: 'each' })
    const ref = await scanned()
    const forged = ref.replace(/^./, (sign) => (sign === '1' ? '2' : '1'))
    expect((await report({ ref: forged, goal: 'window' })).status).toBe(403)
    expect((await report({ ref: `${ref}x`, goal: 'window' })).status).toBe(403)
    vi.useFakeTimers({ now: Date.now() + 25 * 3_600_000, toFake: ['Date'] })
    try {
      expect((await report({ ref, goal: 'window' })).status).toBe(403)
    } finally {
      vi.useRealTimers()
    }
    expect(await reachedBy(id)).toEqual([0, 0])
    expect((await report({ ref, goal: 'window' })).body).toEqual({ counted: 1 })
  })
})

describe('a site', () => {
  it('tells of pages and goals, each counted once, joined to its scan and in the figures', async () => {
    const page = await goal({ name: 'Thanks', key: 'thanks', kind: 'address', pattern: '/thanks', value: 5 })
    await goal({ name: 'Click', key: 'buy', kind: 'click', selector: '#buy' })
    const order = await goal({ name: 'Order', key: 'order', counts: 'each' })
    const ref = await scanned()
    const looked = { ref, view: 'v1', address: 'https://saltmarsh.example/pass?secret=1#x' }
    const first = await report(looked)
    expect(first.body).toEqual({ counted: 1, clicks: [['buy', '#buy']] })
    expect(first.headers['access-control-allow-origin']).toBe('https://saltmarsh.example')
    await report({ ...looked, seconds: 30 })
    await report({ ...looked, seconds: 12 })
    await report({ ref, view: 'v2', address: 'https://saltmarsh.example/thanks' })
    await report({ ref, view: 'v3', address: 'https://saltmarsh.example/thanks' })
    for (const order of ['4711', '4711', '4712'])
      await report({ ref, goal: 'order', order, value: 19.9, currency: 'EUR', event: order })
    expect(await reachedBy(page.id)).toEqual([1, 5])
    expect(await reachedBy(order.id)).toEqual([2, 39.8])
    const { body: pages } = await flimbo.ask<{ rows: SitePage[] }>(
      'GET',
      '/api/site-pages?from=2020-01-01&to=2099-01-01',
    )
    expect(pages.rows).toEqual([
      { page: 'saltmarsh.example/thanks', views: 2, scans: 1, medianSeconds: 0 },
      // What stands behind the path may name a person.
      { page: 'saltmarsh.example/pass', views: 1, scans: 1, medianSeconds: 30 },
    ])
    const days = { from: '2020-01-01', to: '2099-12-31' }
    const { body: figures } = await flimbo.ask<Answers>('POST', '/api/figures', {
      ...{ campaignId: campaign.id, from: '2026-01-01', to: '2099-12-31' },
      questions: [{ what: 'value', by: ['city'] }],
    })
    expect(figures.answers[0]?.total).toMatchObject({ arrivals: 1, goals: 4, value: 44.8 })
    expect(figures.answers[0]?.rows[0]).toMatchObject({ keys: ['DE\tBremen\tBremen'], goals: 4, value: 44.8 })
    const { body: events } = await flimbo.ask<{ rows: GoalEvent[]; total: number }>(
      'GET',
      `/api/goal-events?campaignId=${String(campaign.id)}&goalId=${String(order.id)}&from=${days.from}&to=${days.to}`,
    )
    expect(events.rows.map(({ order: number, value, city }) => [number, value, city])).toEqual([
      ['4711', 19.9, 'Bremen'],
      ['4712', 19.9, 'Bremen'],
    ])
  })

  it('is told why what it sends does not count', async () => {
    await goal({ key: 'off', isOn: false })
    const ref = await scanned()
    const sentences = await Promise.all(
      [
        { ref, goal: 'nothing' },
        { ref, goal: 'off' },
        { ref, goal: 'order', currency: 'DKK' },
        '{',
        'null',
      ].map(async (told) => [
        (await report(told)).status,
        String(((await report(told)).body as { detail: string }).detail),
      ]),
    )
    expect(sentences.map(([status]) => status)).toEqual([422, 422, 422, 400, 400])
    expect(sentences[2]?.[1]).toContain('another currency')
    expect((await report('x'.repeat(20_000)).catch(() => ({ status: 'cut off' }))).status).toEqual(
      expect.toSatisfy((status) => status === 'cut off' || status === 400),
    )
    expect((await flimbo.scan('/~goals/1.made-up', {}, 'POST', undefined, '{}')).status).toBe(404)
  })

  it('cannot have one visitor reach a goal again and again, unless its server signs it', async () => {
    const { id } = await goal({ key: 'again', counts: 'each', value: 1 })
    const ref = await scanned()
    const told = Array.from({ length: 25 }, (_, i) => ({ ref, goal: 'again', event: String(i) }))
    const statuses: number[] = []
    for (const each of told) statuses.push((await report(each)).status)
    expect(statuses.filter((status) => status === 429)).toHaveLength(5)
    expect(await reachedBy(id)).toEqual([20, 20])
    const { body } = await call(token({ iat: now(), ref, goal: 'again', order: 'signed' }))
    expect(body).toEqual({ counted: 1 })
  })

  it('that is not named may not report, and is told so by CORS', async () => {
    const settings = { honoursSignals: true, origins: ['https://saltmarsh.example'], secretNumber: 0 }
    const { body } = await flimbo.ask<GoalSite>('PATCH', '/api/goal-site', { value: settings, version: 0 })
    expect(body.value.origins).toEqual(['https://saltmarsh.example'])
    const ref = await scanned()
    const path = pathOf(site.call).replace('/calls', '')
    const ask = (origin: string) =>
      flimbo.scan(path, { origin, 'access-control-request-method': 'POST' }, 'OPTIONS')
    const [ours, theirs] = [await ask('https://saltmarsh.example'), await ask('https://other.example')]
    expect(ours.headers).toMatchObject({
      'access-control-allow-origin': 'https://saltmarsh.example',
      'access-control-allow-methods': 'POST',
      vary: 'Origin',
    })
    expect(theirs.headers['access-control-allow-origin']).toBeUndefined()
    expect((await report({ ref, goal: 'order' }, { origin: 'https://other.example' })).status).toBe(403)
    expect((await report({ ref, goal: 'order', event: 'a' })).body).toEqual({ counted: 1 })
  })

  it('does not count whoever asks not to be tracked, nor programs, nor tests', async () => {
    const { id } = await goal({ key: 'quiet', counts: 'each' })
    const ref = await scanned()
    for (const headers of [{ dnt: '1' }, { 'sec-gpc': '1' }] as Record<string, string>[])
      expect((await report({ ref, goal: 'quiet', event: 'a' }, headers)).body).toEqual({ counted: 0 })
    await report(
      { ref, goal: 'quiet', event: 'b' },
      { 'user-agent': 'Examplebot/1.0 (+https://bot.example)' },
    )
    expect(await reachedBy(id)).toEqual([0, 0])
    expect(flimbo.rows('SELECT apart FROM goal_events WHERE goalId = ?', id)).toEqual([{ apart: 'crawler' }])
  })

  it('without script reports by a picture, which is shown whatever comes of it', async () => {
    const { id } = await goal({ key: 'seen' })
    const ref = await scanned()
    const picture = (query: string) => flimbo.scan(`${pathOf(site.image)}?${query}`)
    for (const query of [`ref=${ref}&goal=seen&value=3`, `ref=${ref}&goal=seen`, 'ref=x&goal=seen', '']) {
      const { status, headers } = await picture(query)
      expect([status, headers['content-type'], headers['cache-control']]).toEqual([
        200,
        'image/gif',
        'no-store',
      ])
    }
    expect(await reachedBy(id)).toEqual([1, 3])
  })

  it('gets its script from the front door', async () => {
    const { status, headers, body } = await flimbo.scan(pathOf(site.script))
    expect([status, headers['content-type']]).toEqual([200, 'text/javascript; charset=utf-8'])
    expect(String(body)).toContain(site.call.replace('/calls', ''))
    expect(headers['set-cookie']).toBeUndefined()
    expect((await flimbo.scan(pathOf(site.script), {}, 'POST')).status).toBe(405)
  })
})

describe('the server of a site', () => {
  it('reports an order in a signed call, once however often it calls', async () => {
    const { id } = await goal({ name: 'Paid', key: 'paid', counts: 'each', signedOnly: true })
    const ref = await scanned()
    expect((await report({ ref, goal: 'paid', value: 1 })).status).toBe(403)
    const claims = { iat: now(), ref, goal: 'paid', value: 39, currency: 'EUR', order: 4711 }
    expect((await call(token(claims))).body).toEqual({ counted: 1 })
    expect((await call(token(claims))).body).toEqual({ counted: 0 })
    // The same order after another scan is the same order.
    expect((await call(token({ ...claims, ref: await scanned() }))).body).toEqual({ counted: 0 })
    expect(await reachedBy(id)).toEqual([1, 39])
  })

  it.each([
    ['another secret', (claims: object) => token(claims, 'x'.repeat(43))],
    ['no signature', (claims: object) => `${base64({ alg: 'none' })}.${base64(claims)}.`],
    ['another algorithm', (claims: object) => token(claims, undefined, { alg: 'HS512' })],
    ['no time', (claims: object) => token({ ...claims, iat: undefined })],
    ['an old time', (claims: object) => token({ ...claims, iat: now() - 3600 })],
    ['nothing', () => ''],
  ])('is not heard with %s', async (_what, made) => {
    const { status, body } = await call(made({ iat: now(), ref: await scanned(), goal: 'paid', order: 9 }))
    expect([status, typeof (body as { detail: string }).detail]).toEqual([401, 'string'])
  })

  it('needs the new secret once it was replaced', async () => {
    const { body } = await flimbo.ask<GoalSite>('GET', '/api/goal-site')
    const value = { ...body.value, secretNumber: body.value.secretNumber + 1 }
    await flimbo.ask('PATCH', '/api/goal-site', { value, version: body.version })
    const claims = { iat: now(), ref: await scanned(), goal: 'paid', order: 10 }
    expect((await call(token(claims))).status).toBe(401)
    const { body: fresh } = await flimbo.ask<{ secret: string }>('GET', '/api/goal-site/secret')
    expect((await call(token(claims, fresh.secret))).body).toEqual({ counted: 1 })
    const back = { value: { ...value, secretNumber: 0 }, version: body.version + 1 }
    expect((await flimbo.refused('PATCH', '/api/goal-site', back)).fields?.[0]?.path).toBe(
      'value.secretNumber',
    )
  })
})

describe('a copy of a campaign', () => {
  it('has the same goals, which nobody reached yet', async () => {
    const { body: copy } = await flimbo.ask<Campaign>(
      'POST',
      `/api/campaigns/${String(campaign.id)}/copies`,
      {
        ...{ name: 'Next year', utmCampaign: 'next', startsOn: null, endsOn: null, pieceDays: 'clear' },
      },
    )
    const goalsOf = async (id: number) =>
      (await flimbo.ask<{ rows: GoalRow[] }>('GET', `/api/goals?campaignId=${String(id)}`)).body.rows
    const [was, is] = [await goalsOf(campaign.id), await goalsOf(copy.id)]
    expect(is.map(settingsOf)).toEqual(was.map(settingsOf))
    expect(is.every(({ reached, version }) => reached === 0 && version === 1)).toBe(true)
    expect(copy.referenceHours).toBe(24)
  })
})

describe('goals', () => {
  it('have a key of their own in a campaign, and stay once they were reached', async () => {
    const made = await goal({ name: 'Once', key: 'once' })
    const again = { campaignId: campaign.id, value: { ...settingsOf(made) } }
    expect((await flimbo.refused('POST', '/api/goals', again)).fields?.[0]?.path).toBe('value.key')
    const path = `/api/goals/${String(made.id)}`
    const changed = await flimbo.ask<GoalRow>('PATCH', path, {
      value: { ...settingsOf(made), name: 'Twice' },
      version: 1,
    })
    expect(changed.body).toMatchObject({ name: 'Twice', version: 2 })
    expect((await flimbo.refused('PATCH', path, { value: settingsOf(made), version: 1 })).status).toBe(409)
    await report({ ref: await scanned(), goal: 'once' })
    expect((await flimbo.refused('DELETE', path)).detail).toContain('Turn it off')
    const { id } = await goal({ key: 'never' })
    expect((await flimbo.ask('DELETE', `/api/goals/${String(id)}`)).status).toBe(204)
  })

  it('of another workspace are not reached with our reference', async () => {
    const elsewhere = flimbo.person('admin', 'elsewhere')
    const theirs = (await elsewhere<GoalSite>('GET', '/api/goal-site')).body
    expect(theirs.script).not.toBe(site.script)
    const path = pathOf(theirs.call).replace('/calls', '')
    const told = JSON.stringify({ ref: await scanned(), goal: 'order' })
    expect((await flimbo.scan(path, { 'content-type': 'text/plain' }, 'POST', undefined, told)).status).toBe(
      403,
    )
  })
})

const settingsOf = ({ name, kind, key, pattern, selector, value, counts, signedOnly, isOn }: GoalRow) => ({
  ...{ name, kind, key, pattern, selector, value, counts, signedOnly, isOn },
})
