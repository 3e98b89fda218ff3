import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fill, LANGUAGES } from '@flimbo/core/words'
import type { Code } from '@flimbo/core/codes'
import { NO_RULES, openLife, type Rules, type WholeRoute } from '@flimbo/core/routing'
import { BREMEN, http, PHONE, runningFlimbo, type Running } from '../tests/running.ts'
import { createAttempts, FREE_ATTEMPTS, WAITING_MAX } from './attempts.ts'
import { PASS_MS, createPasses, takePass } from './passes.ts'

/** The phones of these tests are German. */
const WORDS = LANGUAGES.de.password

const SECRET = 'low water at nine'
let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const route = ({ routeId }: Code) => flimbo.route(routeId)
async function locked(slug: string): Promise<Code> {
  const code = await flimbo.code(campaignId, { slug, destination: 'https://saltmarsh.example/holders' })
  await setPassword(code, SECRET)
  return code
}
const setPassword = async (code: Code, password: string) =>
  flimbo.ask<WholeRoute>('PATCH', `/api/routes/${String(code.routeId)}/password`, {
    version: (await route(code)).version,
    password,
  })
const post = (path: string, fields: Record<string, string>, headers: Record<string, string> = {}) =>
  http(
    'POST',
    flimbo.ports.door,
    path,
    {
      'user-agent': PHONE,
      'accept-language': 'de-DE',
      'x-forwarded-for': BREMEN,
      'content-type': 'application/x-www-form-urlencoded',
      ...headers,
    },
    new URLSearchParams(fields).toString(),
  )
const sealIn = (body: unknown) => /name="asked" value="([^"]+)"/.exec(String(body))?.[1] ?? ''
/** Scans, and fills in the form of the page that comes. */
const fillIn = async (path: string, fields: Record<string, string>, headers: Record<string, string> = {}) =>
  post(path, { asked: sealIn((await flimbo.scan(path, headers)).body), ...fields }, headers)

describe('a password', () => {
  it('is asked for on a page of its own, and the right one opens the way for a few minutes, without a cookie', async () => {
    const code = await locked('holders')
    const page = await flimbo.scan('/holders?table=7')
    expect([page.status, page.body, page.headers['set-cookie'], page.headers['cache-control']]).toEqual([
      200,
      expect.stringContaining('<form method="post">') as string,
      undefined,
      'no-store',
    ])
    expect(String(page.body).length).toBeLessThan(30_000)

    const asked = sealIn(page.body)
    const wrong = await post('/holders?table=7', { asked, password: 'guess' })
    expect([wrong.status, wrong.body]).toEqual([403, expect.stringContaining(WORDS.wrong) as string])

    const right = await post('/holders?table=7', { asked: sealIn(wrong.body), password: SECRET })
    expect([right.status, right.headers['set-cookie']]).toEqual([303, undefined])
    const onward = await flimbo.scan(right.headers.location ?? '')
    expect([onward.status, onward.headers.location]).toEqual([
      302,
      'https://saltmarsh.example/holders?table=7&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26',
    ])
    // One person scanned once: the second step is kept apart, and says where it led.
    expect(
      flimbo.rows('SELECT outcome, exit, apart, isUnique FROM scans WHERE codeId = ? ORDER BY id', code.id),
    ).toEqual([
      { outcome: 'password', exit: '', apart: null, isUnique: 1 },
      { outcome: 'redirect', exit: 'otherwise', apart: 'onward', isUnique: 0 },
    ])
  })

  it('is kept as a hash alone, in no revision and no answer', async () => {
    const code = await locked('hashed')
    const stored = JSON.stringify([
      flimbo.rows('SELECT * FROM routes'),
      flimbo.rows('SELECT * FROM revisions'),
      await route(code),
    ])
    expect(stored).not.toContain(SECRET)
    expect(
      flimbo.rows<{ passwordHash: string }>('SELECT passwordHash FROM routes WHERE id = ?', code.routeId)[0]
        ?.passwordHash,
    ).toMatch(/^scrypt\$/)
    expect(
      JSON.stringify([await route(code), flimbo.rows('SELECT "before", "after" FROM revisions')]),
    ).not.toContain('scrypt$')
  })

  it('does not take a pass that was tampered with, was for another code, or for an older password', async () => {
    const [one, other] = [await locked('one'), await locked('other')]
    const pass = (await fillIn('/one', { password: SECRET })).headers.location?.split('flimbo-pass=')[1] ?? ''
    const asked = async (slug: string, given: string) =>
      String((await flimbo.scan(`/${slug}?flimbo-pass=${given}`)).body).includes('<form')
    expect(await asked('one', pass)).toBe(false)
    const [until = '', scan = '', signature = ''] = pass.split('.')
    const later = (Number.parseInt(until, 36) + 60_000).toString(36)
    for (const forged of [
      `${later}.${scan}.${signature}`,
      `${until}.other.${signature}`,
      `${until}.${scan}.${signature.slice(0, -1)}x`,
      until,
      '',
      '.',
      `${pass}.x${'y'.repeat(500)}`,
    ])
      expect([forged, await asked('one', forged)]).toEqual([forged, true])
    expect(await asked('other', pass)).toBe(true)
    await setPassword(one, 'high water at ten')
    expect(await asked('one', pass)).toBe(true)
    await setPassword(other, '')
    expect((await flimbo.scan('/other')).status).toBe(302)
  })

  it('that is wrong again and again has to wait ever longer, by address and route, and locks nobody out', async () => {
    const one = await locked('limited')
    const two = await flimbo.code(campaignId, { slug: 'limited-2', routeId: one.routeId })
    const asked = sealIn((await flimbo.scan('/limited')).body)
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, i) =>
        post('/limited', { asked, password: `guess ${String(i)}` }, { 'user-agent': `agent ${String(i)}` }),
      ),
    )
    const statuses = answers.map(({ status }) => status)
    expect(statuses.filter((status) => status === 403)).toHaveLength(FREE_ATTEMPTS)
    expect(statuses.filter((status) => status === 429)).toHaveLength(30 - FREE_ATTEMPTS)
    expect(answers.find(({ status }) => status === 429)?.body).toContain(fill(WORDS.wait, { time: '2 Sek.' }))
    // Another code of the same route is no way round: one more may be looked at by now, and then there is a longer wait.
    const more = [
      await fillIn(`/${two.slug}`, { password: 'x' }),
      await fillIn(`/${two.slug}`, { password: 'y' }),
      await fillIn(`/${two.slug}`, { password: SECRET }),
    ]
    expect(more.slice(1).map(({ status }) => status)).toEqual([429, 429])
    expect(
      (await fillIn('/limited', { password: SECRET }, { 'x-forwarded-for': '198.51.100.7' })).status,
    ).toBe(303)
  })

  it('sent without its page is a scan like any other: it is counted and asked', async () => {
    const code = await locked('straight')
    const sent = await post('/straight', { password: SECRET })
    expect([sent.status, sealIn(sent.body) === '']).toEqual([200, false])
    expect(flimbo.rows('SELECT outcome, apart FROM scans WHERE codeId = ?', code.id)).toEqual([
      { outcome: 'password', apart: null },
    ])
  })

  it('opens one place of a limit, however often its pass is used', async () => {
    const code = await locked('one-place')
    await flimbo.live(code.routeId, { ...NO_RULES, life: { ...openLife('Europe/Berlin'), limit: 2 } })
    const way = (await fillIn('/one-place', { password: SECRET })).headers.location ?? ''
    for (let i = 0; i < 4; i++) expect((await flimbo.scan(way)).status).toBe(302)
    expect((await route(code)).taken?.total).toBe(1)
    const another =
      (await fillIn('/one-place', { password: SECRET }, { 'x-forwarded-for': '198.51.100.9' })).headers
        .location ?? ''
    expect((await flimbo.scan(another)).status).toBe(302)
    // All are taken: whoever has a place keeps it as long as the pass is good, nobody else gets one.
    expect([(await flimbo.scan('/one-place')).status, (await flimbo.scan(way)).status]).toEqual([410, 302])
  })

  it('refuses what is no form, and bodies without end', async () => {
    await locked('forms')
    expect((await post('/forms', {}, { 'content-type': 'application/json' })).status).toBe(400)
    await expect(post('/forms', { password: 'x'.repeat(20_000) }).then(({ status }) => status))
      .resolves.toBe(400)
      .catch((error: unknown) => {
        expect(String(error)).toMatch(/ECONNRESET|EPIPE|hang up/)
      })
    expect((await post('/holders-none', {})).status).toBe(404)
    await flimbo.code(campaignId, { slug: 'open', destination: 'https://saltmarsh.example/open' })
    expect((await post('/open', { password: 'x' })).status).toBe(405)
  })
})

describe('attempts', () => {
  it('wait twice as long each time, a minute at most, and begin anew with the right password', () => {
    const counted = createAttempts()
    let now = 0
    const waits: number[] = []
    for (let n = 0; n < 12; n++) {
      const wait = counted.take(1, '198.51.100.1', now)
      waits.push(wait)
      now += wait
      if (wait > 0) expect(counted.take(1, '198.51.100.1', now)).toBe(0)
    }
    expect(waits).toEqual([0, 0, 0, 0, 0, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000])
    expect([counted.take(2, '198.51.100.1', now), counted.take(1, '198.51.100.2', now)]).toEqual([0, 0])
    counted.giveBack(1, '198.51.100.1')
    expect(counted.take(1, '198.51.100.1', now)).toBe(0)
  })

  it('are those of a whole network where somebody has an IPv6 address', () => {
    const counted = createAttempts()
    for (let n = 0; n < FREE_ATTEMPTS; n++) counted.take(1, `2001:db8:1:2::${String(n)}`, 0)
    expect([counted.take(1, '2001:db8:1:2:ffff::1', 0) > 0, counted.take(1, '2001:db8:1:3::1', 0)]).toEqual([
      true,
      0,
    ])
  })

  it('are looked at one after the other, and only so many wait', async () => {
    const counted = createAttempts()
    let [running, most] = [0, 0]
    const look = async () => {
      most = Math.max(most, ++running)
      await new Promise((resolve) => {
        setTimeout(resolve, 1)
      })
      running--
      return true
    }
    const answers = await Promise.all(Array.from({ length: WAITING_MAX + 11 }, () => counted.inTurn(look)))
    expect([most, answers.filter((each) => each === null).length]).toEqual([1, 10])
    expect(await counted.inTurn(look)).toBe(true)
  })
})

describe('a pass', () => {
  it('is good until its time is over, with one key, and names its scan', () => {
    const [mine, theirs] = [createPasses(), createPasses()]
    const pass = mine.issue(7, 'hash', 'scan', 1000)
    expect([
      mine.scanOf(pass, 7, 'hash', 1000 + PASS_MS),
      mine.scanOf(pass, 7, 'hash', 1001 + PASS_MS),
      theirs.scanOf(pass, 7, 'hash', 1000),
    ]).toEqual(['scan', null, null])
  })
  it('is taken off the query, which stays as it was written', () => {
    expect(takePass('a=%20&flimbo-pass=x.y&b')).toEqual({ pass: 'x.y', rest: 'a=%20&b' })
    expect(takePass('a=1')).toEqual({ pass: '', rest: 'a=1' })
  })
})

describe('asking where the phone is', () => {
  const rules: Rules = {
    ...NO_RULES,
    askLocation: { why: 'To show you the <nearest> pier.' },
    lanes: [
      {
        id: 'near',
        name: '',
        condition: { kind: 'near', name: 'Pier', latitude: 53.7031, longitude: 7.1502, km: 3 },
        outcome: { kind: 'address', address: 'https://saltmarsh.example/pier' },
        resting: false,
      },
    ],
  }
  let code: Code
  beforeAll(async () => {
    code = await flimbo.code(campaignId, { slug: 'where', destination: 'https://saltmarsh.example/piers' })
    await flimbo.live(code.routeId, rules)
  })
  const kept = () =>
    flimbo.rows<{ latitude: number; longitude: number; city: string }>(
      'SELECT latitude, longitude, city FROM scans JOIN places ON places.id = placeId WHERE codeId = ? ORDER BY scans.id DESC LIMIT 1',
      code.id,
    )[0]

  it('says why, and decides by what the phone tells', async () => {
    const page = await flimbo.scan('/where')
    expect(page.body).toContain('To show you the &lt;nearest&gt; pier.')
    expect(page.headers['content-security-policy']).toMatch(/script-src 'nonce-[A-Za-z0-9+/=]+'/)
    const told = await fillIn('/where', { latitude: '53.70391', longitude: '7.15124' })
    expect([told.status, told.headers.location]).toEqual([303, expect.stringContaining('/pier?') as string])
    // Not agreed to: what is kept is the network's place.
    expect(kept()).toMatchObject({ city: 'Bremen', latitude: expect.closeTo(53.08, 1) as number })
  })

  it('works as well when it is refused, or answered with nonsense', async () => {
    const answers: Record<string, string>[] = [
      { latitude: '', longitude: '' },
      { latitude: 'x', longitude: '7' },
      { latitude: '95', longitude: '7' },
    ]
    for (const fields of answers)
      expect((await fillIn('/where', fields)).headers.location).toContain('/piers?')
  })

  it('keeps the place only where the visitor agrees, rounded to a hundredth of a degree', async () => {
    await fillIn('/where', { latitude: '53.70391', longitude: '7.15124', keep: 'yes' })
    expect(kept()).toEqual({ city: 'Bremen', latitude: 53.7, longitude: 7.15 })
  })

  it('counts a form that no page was shown for as a scan, and asks', async () => {
    const before = flimbo.rows('SELECT id FROM scans WHERE codeId = ? AND apart IS NULL', code.id).length
    for (const asked of ['', 'yes', 'x.y']) {
      const sent = await post('/where', { asked, latitude: '53.70391', longitude: '7.15124' })
      expect([sent.status, sealIn(sent.body) === '']).toEqual([200, false])
    }
    expect(flimbo.rows('SELECT id FROM scans WHERE codeId = ? AND apart IS NULL', code.id)).toHaveLength(
      before + 3,
    )
  })
})
