import { get } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Session } from '@flimbo/core/workspace'
import { http, OWNER, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
})
afterAll(() => flimbo.close())

const signIn = (password: string, email = OWNER.email) =>
  flimbo.ask<Session>('POST', '/api/session', { email, password })
const session = async () => (await flimbo.ask<Session>('GET', '/api/session')).body

describe('the first visit', () => {
  it('finds nobody there', async () => {
    expect(await session()).toEqual({ state: 'new' })
  })

  it('asks again for what is not right, field by field', async () => {
    const { status, fields } = await flimbo.refused('POST', '/api/owner', {
      ...OWNER,
      password: 'short',
      zone: 'Nowhere',
    })
    expect([status, fields?.map(({ path }) => path)]).toEqual([422, ['zone', 'password']])
  })

  it('creates the owner, who is signed in at once', async () => {
    await flimbo.setUp()
    expect(await session()).toMatchObject({
      state: 'signed-in',
      person: { name: 'Anna Petersen', role: 'admin' },
      workspace: { name: 'Saltmarsh Line' },
      door: 'http://go.saltmarsh.example',
    })
  })

  it('happens once', async () => {
    expect(
      (await flimbo.refused('POST', '/api/owner', { ...OWNER, email: 'eve@saltmarsh.example' })).status,
    ).toBe(403)
    expect(flimbo.rows('SELECT id FROM people')).toHaveLength(1)
  })

  it('stores no password and no session token', () => {
    const stored = JSON.stringify([
      flimbo.rows('SELECT * FROM people'),
      flimbo.rows('SELECT * FROM sessions'),
    ])
    expect(stored).not.toContain(OWNER.password)
    expect(stored).not.toContain(flimbo.cookie.split('=')[1])
    expect(stored).toContain('scrypt$')
  })
})

describe('a session', () => {
  it('is a cookie scripts cannot read and other sites cannot send', async () => {
    const { headers } = await signIn(OWNER.password)
    expect(headers['set-cookie']?.[0]).toMatch(/^flimbo_session=[\w-]{43};.*HttpOnly; SameSite=Lax$/)
  })

  it('ends on the server when somebody signs out', async () => {
    const { cookie } = flimbo
    expect((await flimbo.ask('DELETE', '/api/session')).status).toBe(204)
    expect((await flimbo.ask<Session>('GET', '/api/session', undefined, { cookie })).body.state).toBe(
      'signed-out',
    )
    expect((await flimbo.refused('GET', '/api/campaigns')).detail).toContain('Sign in')
  })

  it('takes with it the streams that were opened in it, and no others', async () => {
    const stream = (cookie: string) =>
      new Promise<{ ended: Promise<void>; isOpen: () => boolean }>((resolve, reject) => {
        get(
          { host: '127.0.0.1', port: flimbo.ports.office, path: '/api/events', headers: { cookie } },
          (response) => {
            let open = true
            const ended = new Promise<void>((done) => {
              response.resume().on('end', () => {
                open = false
                done()
              })
            })
            resolve({ ended, isOpen: () => open })
          },
        ).on('error', reject)
      })
    await signIn(OWNER.password)
    const theirs = await stream(flimbo.cookie)
    await flimbo.ask('DELETE', '/api/session')
    await theirs.ended
    await signIn(OWNER.password)
    const [mine, other] = [await stream(flimbo.cookie), flimbo.cookie]
    await signIn(OWNER.password)
    expect(flimbo.cookie).not.toBe(other)
    await flimbo.ask('DELETE', '/api/session')
    expect(mine.isOpen()).toBe(true)
    await http('DELETE', flimbo.ports.office, '/api/session', { cookie: other })
    await mine.ended
  })

  it('is not opened by a made-up token', async () => {
    expect(
      (
        await flimbo.ask<Session>('GET', '/api/session', undefined, {
          cookie: `flimbo_session=${'A'.repeat(43)}`,
        })
      ).body.state,
    ).toBe('signed-out')
  })

  it('needs the right password, and does not tell which half was wrong', async () => {
    flimbo.forgetCookie()
    const wrong = await flimbo.refused('POST', '/api/session', { email: OWNER.email, password: 'wrong' })
    const nobody = await flimbo.refused('POST', '/api/session', {
      email: 'nobody@saltmarsh.example',
      password: 'wrong',
    })
    expect(wrong).toEqual(nobody)
    expect((await signIn(OWNER.password, 'ANNA@Saltmarsh.example')).status).toBe(200)
  })
})

describe('writes', () => {
  const write = (headers: Record<string, string>) =>
    flimbo.ask('POST', '/api/campaigns', { name: 'A', zone: 'Europe/Berlin', utmCampaign: 'a' }, headers)
  it.each([
    [{ origin: 'https://elsewhere.example' }],
    [{ origin: 'null' }],
    [{ 'sec-fetch-site': 'cross-site' }],
    [{ 'sec-fetch-site': 'same-site' }],
  ])('from %j are refused', async (headers) => {
    expect((await write(headers)).status).toBe(403)
  })
  it('from the office itself are taken', async () => {
    // By the name it is configured with, or the one the browser reached it under.
    // A name that somebody made lead here, with the very same name as its origin; and the right one by another scheme.
    const own = `http://localhost:${String(flimbo.ports.office)}`
    for (const origin of ['http://elsewhere.example', own.replace('http:', 'https:')])
      expect((await write({ origin, host: new URL(origin).host })).status).toBe(403)
    expect((await write({ origin: own })).status).toBe(201)
    expect((await write({ 'sec-fetch-site': 'same-origin' })).status).toBe(201)
  })
  it('are not for viewers', async () => {
    const viewer = await runningFlimbo()
    try {
      await viewer.setUp()
      const { default: Sqlite } = await import('better-sqlite3')
      const database = new Sqlite(viewer.file)
      database.exec("UPDATE people SET role = 'viewer'")
      database.close()
      expect(
        (
          await viewer.refused('POST', '/api/campaigns', {
            name: 'A',
            zone: 'Europe/Berlin',
            utmCampaign: 'a',
          })
        ).detail,
      ).toContain('look but not change')
      expect((await viewer.ask('GET', '/api/campaigns')).status).toBe(200)
    } finally {
      await viewer.close()
    }
  })
})

describe('the office', () => {
  it('sends a strict content security policy', async () => {
    const policy = (await flimbo.ask('GET', '/api/session')).headers['content-security-policy']
    expect(policy).toContain("default-src 'none'")
    expect(policy).not.toContain('unsafe')
    expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]{24}'/)
  })

  it.each([
    ['broken JSON', '{"name": ', 400, 'not valid JSON'],
    ['no object', '[]', 422, ''],
    ['over a megabyte', JSON.stringify({ name: 'x'.repeat(1_100_000) }), 413, 'larger than the server takes'],
  ])('answers %s with a sentence', async (_name, body, status, sentence) => {
    const problem = await flimbo.refused('POST', '/api/campaigns', body)
    expect([problem.status, problem.detail]).toEqual([status, expect.stringContaining(sentence)])
  })

  it('says what it has where it has nothing', async () => {
    expect(await flimbo.refused('GET', '/api/nothing')).toMatchObject({
      status: 404,
      detail: expect.stringContaining('/api/openapi.json') as string,
    })
  })

  it('describes itself by OpenAPI 3.1, every operation with an answer and a problem', async () => {
    const { body } = await flimbo.ask<{
      openapi: string
      paths: Record<string, Record<string, { responses: object }>>
    }>('GET', '/api/openapi.json')
    expect(body.openapi).toBe('3.1.0')
    const operations = Object.values(body.paths).flatMap((path) => Object.values(path))
    expect(operations.length).toBeGreaterThan(25)
    for (const { responses } of operations) expect(responses).toHaveProperty('default')
    for (const path of ['/session', '/campaigns', '/routes/{id}', '/codes/{id}/file', '/results', '/events'])
      expect(body.paths).toHaveProperty([path])
  })
})

describe('guessing passwords', () => {
  it('is stopped after ten failures, for the right one too', async () => {
    const guesser = await runningFlimbo()
    try {
      await guesser.setUp()
      guesser.forgetCookie()
      const statuses: number[] = []
      for (let i = 0; i < 11; i++)
        statuses.push(
          (await guesser.ask('POST', '/api/session', { email: OWNER.email, password: `guess ${String(i)}` }))
            .status,
        )
      expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429])
      expect(
        (await guesser.refused('POST', '/api/session', { email: OWNER.email, password: OWNER.password }))
          .detail,
      ).toContain('Wait ten minutes')
    } finally {
      await guesser.close()
    }
  })
})
