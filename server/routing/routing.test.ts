import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import type { Condition } from '@flimbo/core/conditions'
import type { Scan } from '@flimbo/core/scans'
import {
  NO_RULES,
  openLife,
  type Effect,
  type ExitTally,
  type Expectation,
  type Lane,
  type Rules,
  type WholeRoute,
} from '@flimbo/core/routing'
import { BREMEN, GRONINGEN, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const lane = (id: string, condition: Condition, more: Partial<Lane> = {}): Lane => ({
  id,
  name: '',
  condition,
  outcome: { kind: 'address', address: `https://saltmarsh.example/${id}` },
  resting: false,
  ...more,
})
const inNetherlands: Condition = { kind: 'country', in: ['NL'] }
const withLanes = (...lanes: Lane[]): Rules => ({ ...NO_RULES, lanes })
const path = (id: number, rest = '') => `/api/routes/${String(id)}${rest}`
const get = (id: number) => flimbo.route(id)
const draft = (id: number, rules: Rules) => flimbo.draft(id, rules)
const publish = (id: number) => flimbo.publish(id)
const live = (id: number, rules: Rules) => flimbo.live(id, rules)
const leads = async (slug: string, headers: Record<string, string> = {}) =>
  new URL((await flimbo.scan(`/${slug}`, headers)).headers.location ?? 'http://none/').pathname
const dutch = { 'x-forwarded-for': GRONINGEN }
let n = 0
const made = (): Promise<Code> =>
  flimbo.code(campaignId, { slug: `route-${String(++n)}`, destination: 'https://saltmarsh.example/else' })

describe('preparing and publishing', () => {
  it('decides nothing until it is published, and everything from then on, for every code of the route', async () => {
    const code = await made()
    const other = await flimbo.code(campaignId, { slug: `${code.slug}-b`, routeId: code.routeId })
    expect(await leads(code.slug, dutch)).toBe('/else')
    expect((await draft(code.routeId, withLanes(lane('nl', inNetherlands)))).body).toMatchObject({
      hasDraft: true,
      rules: { lanes: [] },
      draft: { by: 'Anna Petersen', rules: { lanes: [{ id: 'nl' }] } },
    })
    expect(await leads(code.slug, dutch)).toBe('/else')
    expect((await publish(code.routeId)).body).toMatchObject({
      hasDraft: false,
      draft: null,
      rules: { lanes: [{ id: 'nl' }] },
    })
    expect([await leads(code.slug, dutch), await leads(other.slug, dutch), await leads(code.slug)]).toEqual([
      '/nl',
      '/nl',
      '/else',
    ])
    expect(
      (await flimbo.ask<{ rows: ExitTally[] }>('GET', path(code.routeId, '/exits'))).body.rows.map(
        ({ exit, scans }) => [exit, scans],
      ),
    ).toEqual([
      ['nl', 2],
      ['otherwise', 3],
    ])
  })

  it('shows the rows behind the figure of a lane, as a list and as a file', async () => {
    const code = await made()
    await live(code.routeId, withLanes(lane('nl', inNetherlands)))
    for (const headers of [dutch, dutch, {}, { ...dutch, 'user-agent': 'curl/8.5.0' }])
      await flimbo.scan(`/${code.slug}`, headers)
    const behind = (exit: string) => `routeId=${String(code.routeId)}&exit=${exit}`
    expect(
      (await flimbo.ask<{ total: number; rows: Scan[] }>('GET', `/api/scans?${behind('nl')}`)).body,
    ).toMatchObject({ total: 2, rows: [{ exit: 'nl', city: 'Groningen' }, { exit: 'nl' }] })
    expect((await flimbo.ask<{ total: number }>('GET', `/api/scans?${behind('otherwise')}`)).body.total).toBe(
      1,
    )
    expect(
      (await flimbo.ask<string>('GET', `/api/scans.csv?${behind('nl')}`)).body.trim().split('\r\n'),
    ).toHaveLength(3)
    expect(
      (await flimbo.refused('GET', `/api/scans?codeId=${String(code.id)}&exit=nl`)).fields?.[0],
    ).toMatchObject({ path: 'exit' })
  })

  it('shows the very next scan what was published, a hundred times over', async () => {
    const code = await made()
    for (let i = 0; i < 100; i++) {
      await live(code.routeId, withLanes(lane(`p${String(i)}`, { kind: 'all', of: [] })))
      expect(await leads(code.slug)).toBe(`/p${String(i)}`)
    }
  })

  it('lets nobody overwrite what somebody else prepared or published', async () => {
    const { routeId } = await made()
    const { version, draftVersion, destination } = await get(routeId)
    await draft(routeId, withLanes(lane('a', inNetherlands)))
    expect(
      (await flimbo.refused('PATCH', path(routeId, '/draft'), { draftVersion, destination, rules: NO_RULES }))
        .type,
    ).toBe('/problems/conflict')
    expect((await flimbo.refused('POST', path(routeId, '/publish'), { version, draftVersion })).type).toBe(
      '/problems/conflict',
    )
    expect(
      (
        await flimbo.refused('POST', path(routeId, '/publish'), {
          version: version + 1,
          draftVersion: draftVersion + 1,
        })
      ).type,
    ).toBe('/problems/conflict')
    await publish(routeId)
    expect(
      (
        await flimbo.refused('POST', path(routeId, '/publish'), {
          version: version + 1,
          draftVersion: draftVersion + 2,
        })
      ).detail,
    ).toContain('nothing to publish')
  })

  it('drops a draft that is the same as what is live, and one that is not wanted', async () => {
    const { routeId } = await made()
    await draft(routeId, withLanes(lane('a', inNetherlands)))
    expect((await draft(routeId, NO_RULES)).body.draft).toBeNull()
    await draft(routeId, withLanes(lane('a', inNetherlands)))
    expect((await flimbo.ask<WholeRoute>('DELETE', path(routeId, '/draft'))).body.draft).toBeNull()
  })

  it('keeps a destination that is changed at once while something else is prepared', async () => {
    const { routeId, slug } = await made()
    await draft(routeId, withLanes(lane('nl', inNetherlands)))
    await flimbo.ask('PATCH', path(routeId), {
      version: (await get(routeId)).version,
      destination: 'https://saltmarsh.example/urgent',
    })
    await publish(routeId)
    expect([await leads(slug), await leads(slug, dutch)]).toEqual(['/urgent', '/nl'])
  })

  it('goes back to an older revision in one step, and says who did what in words', async () => {
    const { routeId, slug } = await made()
    await live(routeId, withLanes(lane('nl', inNetherlands)))
    await live(routeId, withLanes(lane('all', { kind: 'all', of: [] })))
    expect(await leads(slug, dutch)).toBe('/all')
    expect(
      (
        await flimbo.ask('POST', path(routeId, '/return'), {
          version: (await get(routeId)).version,
          number: 2,
        })
      ).status,
    ).toBe(200)
    expect(await leads(slug, dutch)).toBe('/nl')
    expect(
      (
        await flimbo.refused('POST', path(routeId, '/return'), {
          version: (await get(routeId)).version,
          number: 99,
        })
      ).status,
    ).toBe(404)
    const { rows } = (
      await flimbo.ask<{ rows: { number: number; after: { rules: Rules } }[] }>(
        'GET',
        path(routeId, '/revisions?order=asc'),
      )
    ).body
    expect(rows.map(({ after }) => after.rules.lanes.map(({ id }) => id).join())).toEqual([
      '',
      'nl',
      'all',
      'nl',
    ])
  })
})

describe('what publishing would change', () => {
  it('is told by deciding real scans again, and by running what is expected', async () => {
    const { routeId, slug } = await made()
    for (let i = 0; i < 5; i++) await flimbo.scan(`/${slug}`, i < 3 ? dutch : { 'x-forwarded-for': BREMEN })
    await flimbo.scan(`/${slug}`, { 'user-agent': 'curl/8.5.0' })
    const expectation: Expectation = {
      id: 'e1',
      name: 'Groningen stays',
      leads: 'https://saltmarsh.example/else?utm_source=x',
      rehearsal: {
        place: { country: 'NL', region: '', city: 'Groningen', latitude: null, longitude: null },
        device: { type: 'phone', system: 'iOS', systemVersion: '18', browser: 'Safari' },
        languages: [],
        at: '',
        zone: 'Europe/Berlin',
        repeat: false,
        query: '',
      },
    }
    await flimbo.ask('PATCH', path(routeId, '/expectations'), { expectations: [expectation] })
    await draft(routeId, withLanes(lane('nl', inNetherlands)))
    expect((await flimbo.ask<Effect>('GET', path(routeId, '/effect'))).body).toEqual({
      scans: 5,
      elsewhere: 3,
      moved: [
        {
          was: 'https://saltmarsh.example/else',
          is: 'https://saltmarsh.example/nl',
          scans: 3,
          places: ['Groningen (NL)'],
        },
      ],
      broken: [
        {
          name: 'Groningen stays',
          expected: 'https://saltmarsh.example/else',
          would: 'https://saltmarsh.example/nl',
        },
      ],
      changes: ['a new lane: Scans in Netherlands → saltmarsh.example/nl'],
    })
  })

  it('counts who would come to the same page with another query', async () => {
    const { routeId, slug } = await made()
    await flimbo.scan(`/${slug}`, dutch)
    await flimbo.scan(`/${slug}`, { 'x-forwarded-for': BREMEN })
    const winter = 'https://saltmarsh.example/else?season=winter'
    await draft(
      routeId,
      withLanes(lane('nl', inNetherlands, { outcome: { kind: 'address', address: winter } })),
    )
    expect((await flimbo.ask<Effect>('GET', path(routeId, '/effect'))).body).toMatchObject({
      scans: 2,
      elsewhere: 1,
      moved: [
        {
          was: 'https://saltmarsh.example/else',
          is: 'https://saltmarsh.example/else with another query',
          scans: 1,
        },
      ],
    })
  })
})

describe('a lane that leads to another route', () => {
  const onward = (routeId: number) =>
    withLanes(lane('on', { kind: 'all', of: [] }, { outcome: { kind: 'route', routeId } }))

  it('is decided by that route, and by its newest rules at once', async () => {
    const [first, second] = [await made(), await made()]
    await live(first.routeId, onward(second.routeId))
    expect(await leads(first.slug, dutch)).toBe('/else')
    await live(second.routeId, withLanes(lane('deep', inNetherlands)))
    expect([await leads(first.slug, dutch), await leads(first.slug)]).toEqual(['/deep', '/else'])
  })

  it('keeps the route it leads to from being deleted', async () => {
    const first = await made()
    const second = (
      await flimbo.ask<WholeRoute>('POST', '/api/routes', {
        campaignId,
        name: 'Led to',
        destination: 'https://saltmarsh.example/led',
      })
    ).body
    await live(first.routeId, onward(second.id))
    expect(
      (await flimbo.refused('PATCH', path(second.id), { version: second.version, state: 'deleted' })).detail,
    ).toContain('leads on to this one')
    await live(first.routeId, NO_RULES)
    expect(
      (await flimbo.ask('PATCH', path(second.id), { version: second.version, state: 'deleted' })).status,
    ).toBe(200)
  })

  it('is refused where it leads in a circle, to nothing, or to a route with bounds of its own', async () => {
    const [a, b, c] = [await made(), await made(), await made()]
    await live(a.routeId, onward(b.routeId))
    await live(b.routeId, onward(c.routeId))
    for (const [id, rules, words] of [
      [a.routeId, onward(a.routeId), 'leads back to its own route'],
      [c.routeId, onward(a.routeId), 'scans would go in a circle'],
      [c.routeId, onward(9999), 'does not exist'],
      [b.routeId, { ...NO_RULES, life: { ...openLife('UTC'), limit: 5 } }, 'leads on to this one'],
    ] as const) {
      const { draftVersion, destination } = await get(id)
      const refused = await flimbo.refused('PATCH', path(id, '/draft'), { draftVersion, destination, rules })
      expect(JSON.stringify(refused)).toContain(words)
    }
    const limited = await made()
    await live(limited.routeId, { ...NO_RULES, life: { ...openLife('UTC'), limit: 5 } })
    const { draftVersion, destination } = await get(c.routeId)
    expect(
      JSON.stringify(
        await flimbo.refused('PATCH', path(c.routeId, '/draft'), {
          draftVersion,
          destination,
          rules: onward(limited.routeId),
        }),
      ),
    ).toContain('keeps a limit')
  })
})

describe('what cannot be', () => {
  it.each<[string, unknown]>([
    [
      'a lane back to the front door',
      withLanes(
        lane('a', inNetherlands, { outcome: { kind: 'address', address: 'http://go.saltmarsh.example/x' } }),
      ),
    ],
    [
      'a script for an address',
      withLanes(lane('a', inNetherlands, { outcome: { kind: 'address', address: 'javascript:alert(1)' } })),
    ],
    ['two lanes of one key', withLanes(lane('a', inNetherlands), lane('a', inNetherlands))],
    ['a lane called otherwise', withLanes(lane('otherwise', inNetherlands))],
    ['a country in full', withLanes(lane('a', { kind: 'country', in: ['Germany'] }))],
    [
      'an end before the start',
      { ...NO_RULES, life: { ...openLife('UTC'), startsAt: '2026-07-01T00:00', endsAt: '2026-06-01T00:00' } },
    ],
    ['a limit of nothing', { ...NO_RULES, life: { ...openLife('UTC'), limit: 0 } }],
    [
      'a condition nobody knows',
      withLanes(lane('a', { kind: 'moon', in: ['full'] } as unknown as Condition)),
    ],
  ])('%s is refused with a sentence, and nothing is kept', async (_what, rules) => {
    const { routeId } = await made()
    const { draftVersion, destination } = await get(routeId)
    const refused = await flimbo.refused('PATCH', path(routeId, '/draft'), {
      draftVersion,
      destination,
      rules,
    })
    expect([refused.status, (refused.fields?.[0]?.message ?? '').length > 10]).toEqual([422, true])
    expect((await get(routeId)).draft).toBeNull()
  })
})

describe('items', () => {
  it('share a route by an import and still lead each to its own page', async () => {
    const campaign = await flimbo.campaign('Items', 'items-26')
    const first = await flimbo.code(campaign.id, {
      name: 'First',
      slug: 'item-0',
      destination: 'https://saltmarsh.example/all',
    })
    const items = Array.from(
      { length: 300 },
      (_, i) =>
        `K${String(i)},Item ${String(i)},First,https://saltmarsh.example/item/${String(i)},print,label,ITEM-${String(i + 1)}`,
    )
    const csv = ['Key,Piece,Route,Own destination,Medium,Source,Short link', ...items].join('\r\n')
    const started = await flimbo.ask<{ id: number }>(
      'POST',
      `/api/imports?campaignId=${String(campaign.id)}&name=items.csv`,
      new TextEncoder().encode(csv),
      { 'content-type': 'application/octet-stream' },
    )
    expect(started.status).toBeLessThan(300)
    const ran = await flimbo.ask('POST', `/api/imports/${String(started.body.id)}/runs`, { lines: 'good' })
    expect(ran.status).toBeLessThan(300)
    for (
      let i = 0;
      i < 100 &&
      flimbo.rows<{ n: number }>("SELECT count(*) AS n FROM codes WHERE source = 'label'")[0]?.n !== 300;
      i++
    )
      await new Promise((resolve) => setTimeout(resolve, 100))
    await live(first.routeId, withLanes(lane('nl', inNetherlands)))
    expect([
      await leads('item-1'),
      await leads('item-300'),
      await leads('item-0'),
      await leads('item-7', dutch),
    ]).toEqual(['/item/0', '/item/299', '/all', '/nl'])
  })
})
