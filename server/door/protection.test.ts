import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { NO_RULES, type Rules, type WholeRoute } from '@flimbo/core/routing'
import { BREMEN, http, PHONE, runningFlimbo, type Running } from '../tests/running.ts'
import { attempts, WRONG_BY_CODE, WRONG_BY_VISITOR } from './attempts.ts'
import { PASS_MS, passes, takePass } from './passes.ts'

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
const setPassword = async (code: Code, password: string) => flimbo.ask<WholeRoute>('PATCH', `/api/routes/${String(code.routeId)}/password`, { version: (await route(code)).version, password })
const post = (path: string, fields: Record<string, string>, headers: Record<string, string> = {}) => http('POST', flimbo.ports.door, path,
  { 'user-agent': PHONE, 'accept-language': 'de-DE', 'x-forwarded-for': BREMEN, 'content-type': 'application/x-www-form-urlencoded', ...headers }, new URLSearchParams(fields).toString())

describe('a password', () => {
  it('is asked for on a page of its own, and the right one opens the way for a few minutes, without a cookie', async () => {
    const code = await locked('holders')
    const page = await flimbo.scan('/holders?table=7')
    expect([page.status, page.body, page.headers['set-cookie'], page.headers['cache-control']]).toEqual([200, expect.stringContaining('<form method="post">') as string, undefined, 'no-store'])
    expect(String(page.body).length).toBeLessThan(30_000)

    const wrong = await post('/holders?table=7', { password: 'guess' })
    expect([wrong.status, wrong.body]).toEqual([403, expect.stringContaining('That was not the password') as string])

    const right = await post('/holders?table=7', { password: SECRET })
    expect([right.status, right.headers['set-cookie']]).toEqual([303, undefined])
    const onward = await flimbo.scan(right.headers.location ?? '')
    expect([onward.status, onward.headers.location]).toEqual([302, 'https://saltmarsh.example/holders?table=7&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26'])
    // One person scanned once: the second step is kept apart, and says where it led.
    expect(flimbo.rows('SELECT outcome, exit, apart, isUnique FROM scans WHERE codeId = ? ORDER BY id', code.id)).toEqual([
      { outcome: 'password', exit: '', apart: null, isUnique: 1 }, { outcome: 'redirect', exit: 'otherwise', apart: 'onward', isUnique: 0 },
    ])
  })

  it('is kept as a hash alone, in no revision and no answer', async () => {
    const code = await locked('hashed')
    const stored = JSON.stringify([flimbo.rows('SELECT * FROM routes'), flimbo.rows('SELECT * FROM revisions'), await route(code)])
    expect(stored).not.toContain(SECRET)
    expect(flimbo.rows<{ passwordHash: string }>('SELECT passwordHash FROM routes WHERE id = ?', code.routeId)[0]?.passwordHash).toMatch(/^scrypt\$/)
    expect(JSON.stringify([await route(code), flimbo.rows('SELECT "before", "after" FROM revisions')])).not.toContain('scrypt$')
  })

  it('does not take a pass that was tampered with, was for another code, or for an older password', async () => {
    const [one, other] = [await locked('one'), await locked('other')]
    const pass = (await post('/one', { password: SECRET })).headers.location?.split('flimbo-pass=')[1] ?? ''
    const asked = async (slug: string, given: string) => String((await flimbo.scan(`/${slug}?flimbo-pass=${given}`)).body).includes('<form')
    expect(await asked('one', pass)).toBe(false)
    const [until = '', signature = ''] = pass.split('.')
    const later = (Number.parseInt(until, 36) + 60_000).toString(36)
    for (const forged of [`${later}.${signature}`, `${until}.${signature.slice(0, -1)}x`, until, '', '.', `${until}.${signature}.x${'y'.repeat(500)}`]) expect([forged, await asked('one', forged)]).toEqual([forged, true])
    expect(await asked('other', pass)).toBe(true)
    await setPassword(one, 'high water at ten')
    expect(await asked('one', pass)).toBe(true)
    await setPassword(other, '')
    expect((await flimbo.scan('/other')).status).toBe(302)
  })

  it('is looked at only so often for one visitor, however fast they come, and others still get in', async () => {
    await locked('limited')
    const answers = await Promise.all(Array.from({ length: 30 }, (_, i) => post('/limited', { password: `guess ${String(i)}` })))
    const statuses = answers.map(({ status }) => status)
    expect(statuses.filter((status) => status === 403)).toHaveLength(WRONG_BY_VISITOR)
    expect(statuses.filter((status) => status === 429)).toHaveLength(30 - WRONG_BY_VISITOR)
    expect((await post('/limited', { password: SECRET })).status).toBe(429)
    expect((await post('/limited', { password: SECRET }, { 'x-forwarded-for': '198.51.100.7' })).status).toBe(303)
  })

  it('refuses what is no form, and bodies without end', async () => {
    await locked('forms')
    expect((await post('/forms', {}, { 'content-type': 'application/json' })).status).toBe(400)
    await expect(post('/forms', { password: 'x'.repeat(20_000) }).then(({ status }) => status)).resolves.toBe(400).catch((error: unknown) => { expect(String(error)).toMatch(/ECONNRESET|EPIPE|hang up/) })
    expect((await post('/holders-none', {})).status).toBe(404)
    await flimbo.code(campaignId, { slug: 'open', destination: 'https://saltmarsh.example/open' })
    expect((await post('/open', { password: 'x' })).status).toBe(405)
  })
})

describe('attempts', () => {
  it('end for a code when too many visitors were wrong, and right ones are given back', () => {
    const counted = attempts()
    for (let n = 0; n < WRONG_BY_CODE; n++) expect(counted.take(1, `v${String(n)}`)).toBe(true)
    expect([counted.take(1, 'another'), counted.take(2, 'another')]).toEqual([false, true])
    for (let n = 0; n < 50; n++) { expect(counted.take(3, 'right')).toBe(true); counted.giveBack(3, 'right') }
  })
})

describe('a pass', () => {
  it('is good until its time is over, and for one process', () => {
    const [mine, theirs] = [passes(), passes()]
    const pass = mine.issue(7, 'hash', 1000)
    expect([mine.isGood(pass, 7, 'hash', 1000 + PASS_MS), mine.isGood(pass, 7, 'hash', 1001 + PASS_MS), theirs.isGood(pass, 7, 'hash', 1000)]).toEqual([true, false, false])
  })
  it('is taken off the query, which stays as it was written', () => {
    expect(takePass('a=%20&flimbo-pass=x.y&b')).toEqual({ pass: 'x.y', rest: 'a=%20&b' })
    expect(takePass('a=1')).toEqual({ pass: '', rest: 'a=1' })
  })
})

describe('asking where the phone is', () => {
  const rules: Rules = {
    ...NO_RULES, askLocation: { why: 'To show you the <nearest> pier.' },
    lanes: [{ id: 'near', name: '', condition: { kind: 'near', name: 'Pier', latitude: 53.7031, longitude: 7.1502, km: 3 }, outcome: { kind: 'address', address: 'https://saltmarsh.example/pier' }, resting: false }],
  }
  let code: Code
  beforeAll(async () => {
    code = await flimbo.code(campaignId, { slug: 'where', destination: 'https://saltmarsh.example/piers' })
    await flimbo.live(code.routeId, rules)
  })
  const kept = () => flimbo.rows<{ latitude: number; longitude: number; city: string }>('SELECT latitude, longitude, city FROM scans JOIN places ON places.id = placeId WHERE codeId = ? ORDER BY scans.id DESC LIMIT 1', code.id)[0]

  it('says why, and decides by what the phone tells', async () => {
    const page = await flimbo.scan('/where')
    expect(page.body).toContain('To show you the &lt;nearest&gt; pier.')
    expect(page.headers['content-security-policy']).toMatch(/script-src 'nonce-[A-Za-z0-9+/=]+'/)
    const told = await post('/where', { asked: 'yes', latitude: '53.70391', longitude: '7.15124' })
    expect([told.status, told.headers.location]).toEqual([303, expect.stringContaining('/pier?') as string])
    // Not agreed to: what is kept is the network's place.
    expect(kept()).toMatchObject({ city: 'Bremen', latitude: expect.closeTo(53.08, 1) as number })
  })

  it('works as well when it is refused, or answered with nonsense', async () => {
    const answers: Record<string, string>[] = [{ asked: 'yes' }, { asked: 'yes', latitude: '', longitude: '' }, { asked: 'yes', latitude: 'x', longitude: '7' }, { asked: 'yes', latitude: '95', longitude: '7' }]
    for (const fields of answers) expect((await post('/where', fields)).headers.location).toContain('/piers?')
  })

  it('keeps the place only where the visitor agrees, rounded to a hundredth of a degree', async () => {
    await post('/where', { asked: 'yes', latitude: '53.70391', longitude: '7.15124', keep: 'yes' })
    expect(kept()).toEqual({ city: 'Bremen', latitude: 53.7, longitude: 7.15 })
  })
})
