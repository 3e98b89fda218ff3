import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LANGUAGES } from '@flimbo/core/words'
import type { Code } from '@flimbo/core/codes'
import { NO_RULES, openLife, type BoundRow, type Life, type Rules } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from '../tests/running.ts'

/** The phones of these tests are German. */
const WORDS = LANGUAGES.de.pages

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

async function limited(slug: string, life: Partial<Life>, more: Partial<Rules> = {}): Promise<Code> {
  const code = await flimbo.code(campaignId, { slug, destination: 'https://saltmarsh.example/offer' })
  await flimbo.live(code.routeId, { ...NO_RULES, life: { ...openLife('Europe/Berlin'), ...life }, ...more })
  return code
}
const from = (n: number) => ({
  'x-forwarded-for': `2.59.${String(Math.floor(n / 250) % 250)}.${String(1 + (n % 250))}`,
})
const crowd = async (path: string, scans: number, parts = 200) => {
  const answers: string[] = []
  for (let done = 0; done < scans; done += parts) {
    const group = Array.from({ length: Math.min(parts, scans - done) }, (_, i) =>
      flimbo.scan(path, from(done + i)),
    )
    answers.push(
      ...(await Promise.all(group)).map(({ status, headers }) =>
        status === 302 ? new URL(headers.location ?? '').pathname : String(status),
      ),
    )
  }
  return { through: answers.filter((each) => each === '/offer').length, answers: new Set(answers) }
}
const waitingList = { kind: 'address', address: 'https://saltmarsh.example/waiting-list' } as const

describe('a limit of scans', () => {
  it('lets exactly so many through, with 200 asking at once, and then answers with its own address', async () => {
    const code = await limited('five-hundred', { limit: 500, full: waitingList })
    const { through, answers } = await crowd('/FIVE-HUNDRED', 1200)
    expect(through).toBe(500)
    expect(answers).toEqual(new Set(['/offer', '/waiting-list']))
    expect(
      flimbo.rows("SELECT count(*) AS n FROM scans WHERE codeId = ? AND exit = 'otherwise'", code.id),
    ).toEqual([{ n: 500 }])
    expect((await flimbo.route(code.routeId)).taken).toEqual({ total: 500, today: 500 })
    // The desk says so.
    expect((await flimbo.ask<{ rows: BoundRow[] }>('GET', '/api/bounds')).body.rows).toContainEqual(
      expect.objectContaining({ routeId: code.routeId, kind: 'full', urgent: true, limit: 500, codes: 1 }),
    )
  })

  it('goes on counting when it is raised in the middle of a rush', async () => {
    const code = await limited('raised', { limit: 100 })
    const rush = crowd('/RAISED', 800, 100)
    const { rules } = await flimbo.route(code.routeId)
    await flimbo.live(code.routeId, { ...rules, life: rules.life && { ...rules.life, limit: 150 } })
    expect((await rush).through).toBe(150)
  })

  it('does not count programs, previews and test scans', async () => {
    await limited('people-only', { limit: 1 })
    for (let i = 0; i < 5; i++) await flimbo.scan('/PEOPLE-ONLY', { 'user-agent': 'curl/8.5.0' })
    await flimbo.scan('/PEOPLE-ONLY', {}, 'HEAD')
    expect((await flimbo.scan('/PEOPLE-ONLY')).status).toBe(302)
    const full = await flimbo.scan('/PEOPLE-ONLY')
    expect([full.status, full.body]).toEqual([410, expect.stringContaining(WORDS.full.title) as string])
  })

  it('of a day is of that day', async () => {
    const code = await limited('daily', {
      daily: 3,
      fullToday: { kind: 'message', title: 'Tomorrow again', text: 'The boat is full <today>.' },
    })
    const { through } = await crowd('/DAILY', 10)
    expect(through).toBe(3)
    const { body } = await flimbo.scan('/DAILY')
    expect(body).toContain('The boat is full &lt;today&gt;.')
    expect(
      flimbo.rows("SELECT DISTINCT outcome FROM scans WHERE codeId = ? AND exit = 'full-today'", code.id),
    ).toEqual([{ outcome: 'message' }])
  })

  it('counts from when it is set: earlier scans used none of it', async () => {
    const code = await flimbo.code(campaignId, {
      slug: 'later',
      destination: 'https://saltmarsh.example/offer',
    })
    await crowd('/LATER', 30)
    await flimbo.live(code.routeId, { ...NO_RULES, life: { ...openLife('Europe/Berlin'), limit: 2 } })
    expect((await crowd('/LATER', 10)).through).toBe(2)
  })
})

describe('a limit that counts a visitor once a day', () => {
  it('is not used up by one phone that reloads, whichever piece of the route it scans', async () => {
    const code = await limited('once', { limit: 2, once: true })
    await flimbo.code(campaignId, { slug: 'once-more', routeId: code.routeId })
    for (let i = 0; i < 5; i++)
      expect((await flimbo.scan(i % 2 ? '/ONCE' : '/ONCE-MORE', from(1))).status).toBe(302)
    expect((await flimbo.route(code.routeId)).taken?.total).toBe(1)
    expect([
      (await flimbo.scan('/ONCE', from(2))).status,
      (await flimbo.scan('/ONCE', from(3))).status,
    ]).toEqual([302, 410])
    // Who has a place keeps it, when all are taken too.
    expect((await flimbo.scan('/ONCE', from(1))).status).toBe(302)
  })

  it('lets exactly so many visitors through, however often each of them scans at once', async () => {
    const code = await limited('once-rush', { limit: 20, once: true })
    const asked = await Promise.all(
      Array.from(
        { length: 200 },
        async (_, i) => [i % 40, (await flimbo.scan('/ONCE-RUSH', from(i % 40))).status] as const,
      ),
    )
    expect(new Set(asked.filter(([, status]) => status === 302).map(([visitor]) => visitor)).size).toBe(20)
    expect((await flimbo.route(code.routeId)).taken?.total).toBe(20)
  })
})

describe('a route that leads on to another', () => {
  it('does not use up its limit on scans that the other one lets nobody through for', async () => {
    const target = await flimbo.code(campaignId, {
      slug: 'led-to',
      destination: 'https://saltmarsh.example/offer',
    })
    const lanes: Rules['lanes'] = [
      {
        id: 'on',
        name: '',
        condition: { kind: 'all', of: [] },
        outcome: { kind: 'route', routeId: target.routeId },
        resting: false,
      },
    ]
    const code = await limited('leads-on', { limit: 3 }, { lanes })
    const { version } = await flimbo.route(target.routeId)
    await flimbo.ask('PATCH', `/api/routes/${String(target.routeId)}`, { version, state: 'paused' })
    for (let i = 0; i < 5; i++) expect((await flimbo.scan('/LEADS-ON', from(i))).status).toBe(404)
    expect((await flimbo.route(code.routeId)).taken?.total).toBe(0)
    await flimbo.ask('PATCH', `/api/routes/${String(target.routeId)}`, {
      version: version + 1,
      state: 'live',
    })
    expect((await crowd('/LEADS-ON', 10)).through).toBe(3)
  })
})

describe('a limit with two front doors on one database', () => {
  it('lets exactly so many through, with 200 asking at both at once', async () => {
    const was = flimbo
    const own = await runningFlimbo({ FLIMBO_DOORS: '2' })
    try {
      flimbo = own
      await own.setUp()
      const campaign = await own.campaign()
      const code = await own.code(campaign.id, {
        slug: 'two-doors',
        destination: 'https://saltmarsh.example/offer',
      })
      await own.live(code.routeId, {
        ...NO_RULES,
        life: { ...openLife('Europe/Berlin'), limit: 77, daily: 90 },
      })
      expect(own.doorPorts).toHaveLength(2)
      const answers = await Promise.all(
        Array.from({ length: 400 }, (_, i) => own.scan('/two-doors', from(i), 'GET', own.doorPorts[i % 2])),
      )
      expect(answers.filter(({ status }) => status === 302)).toHaveLength(77)
      expect(answers.filter(({ status }) => status === 410)).toHaveLength(323)
      expect(own.rows("SELECT count(*) AS n FROM scans WHERE exit = 'otherwise'")).toEqual([{ n: 77 }])
      // What the office changes, both have forgotten before the call is answered.
      await own.live(code.routeId, { ...NO_RULES, life: null })
      for (const port of own.doorPorts)
        expect((await own.scan('/two-doors', {}, 'GET', port)).status).toBe(302)
    } finally {
      flimbo = was
      await own.close()
    }
  })
})

describe('dates', () => {
  it('answer before and after in their own way', async () => {
    await limited('early', { startsAt: '2199-01-01T00:00' })
    await limited('over', { endsAt: '2020-01-01T00:00', after: waitingList })
    const early = await flimbo.scan('/EARLY')
    expect([early.status, early.body]).toEqual([404, expect.stringContaining(WORDS.early.title) as string])
    expect((await flimbo.scan('/OVER')).headers.location).toContain('/waiting-list?')
  })
})

describe('the first scan of the day', () => {
  it('is told from the next one of the same visitor, at once', async () => {
    const code = await flimbo.code(campaignId, {
      slug: 'again',
      destination: 'https://saltmarsh.example/offer',
    })
    await flimbo.live(code.routeId, {
      ...NO_RULES,
      lanes: [
        {
          id: 'again',
          name: '',
          condition: { kind: 'visit', is: 'repeat' },
          outcome: { kind: 'address', address: 'https://saltmarsh.example/welcome-back' },
          resting: false,
        },
      ],
    })
    const paths: string[] = []
    for (const n of [1, 1, 2, 1])
      paths.push(new URL((await flimbo.scan('/AGAIN', from(n))).headers.location ?? '').pathname)
    expect(paths).toEqual(['/offer', '/welcome-back', '/offer', '/welcome-back'])
  })
})

describe('a restart', () => {
  it('forgets nothing that was let through', async () => {
    const dataDir = flimbo.config.dataDir
    const own = await runningFlimbo({ FLIMBO_DATA_DIR: `${dataDir}/restart` })
    await own.setUp()
    const was = flimbo
    try {
      flimbo = own
      const campaign = await own.campaign()
      const code = await own.code(campaign.id, {
        slug: 'restart',
        destination: 'https://saltmarsh.example/offer',
      })
      await flimbo.live(code.routeId, { ...NO_RULES, life: { ...openLife('Europe/Berlin'), limit: 7 } })
      expect((await crowd('/RESTART', 4)).through).toBe(4)
      await own.stop()
      flimbo = await runningFlimbo({ FLIMBO_DATA_DIR: `${dataDir}/restart` })
      expect((await crowd('/RESTART', 20)).through).toBe(3)
      await flimbo.close()
    } finally {
      flimbo = was
    }
  })
})
