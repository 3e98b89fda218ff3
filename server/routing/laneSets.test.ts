import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { NO_RULES, type Effect, type Lane, type LaneSet, type Rules } from '@flimbo/core/routing'
import { GRONINGEN, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let codes: Code[]
let set: LaneSet
const lane = (id: string, country: string, page: string): Lane => ({
  id,
  name: '',
  condition: { kind: 'country', in: [country] },
  outcome: { kind: 'address', address: `https://saltmarsh.example/${page}` },
  resting: false,
})
const path = (id: number, rest = '') => `/api/routes/${String(id)}${rest}`
const get = (id: number) => flimbo.route(id)
const draft = (id: number, rules: Partial<Rules>) => flimbo.draft(id, { ...NO_RULES, ...rules })
const live = (id: number, rules: Partial<Rules>) => flimbo.live(id, { ...NO_RULES, ...rules })
const leads = async ({ slug }: Code, from = GRONINGEN) =>
  new URL((await flimbo.scan(`/${slug}`, { 'x-forwarded-for': from })).headers.location ?? 'http://none/')
    .pathname
const change = (body: object) =>
  flimbo.ask<LaneSet>('PATCH', `/api/lane-sets/${String(set.id)}`, { version: set.version, ...body })

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  codes = await Promise.all(
    ['one', 'two', 'three'].map((slug) =>
      flimbo.code(campaignId, { slug, name: slug, destination: 'https://saltmarsh.example/else' }),
    ),
  )
  set = (
    await flimbo.ask<LaneSet>('POST', '/api/lane-sets', {
      name: 'Neighbours',
      lanes: [lane('nl', 'NL', 'dutch')],
    })
  ).body
})
afterAll(() => flimbo.close())

describe('shared lanes', () => {
  it('are asked before or after a route’s own, by every route that uses them', async () => {
    const [one, two, three] = codes as [Code, Code, Code]
    await live(one.routeId, { shared: { setId: set.id, place: 'first' }, lanes: [lane('own', 'NL', 'own')] })
    await live(two.routeId, { shared: { setId: set.id, place: 'last' }, lanes: [lane('own', 'NL', 'own')] })
    expect([await leads(one), await leads(two), await leads(three)]).toEqual(['/dutch', '/own', '/else'])
    expect(flimbo.rows('SELECT exit FROM scans WHERE codeId IN (?, ?) ORDER BY id', one.id, two.id)).toEqual([
      { exit: `s${String(set.id)}-nl` },
      { exit: 'own' },
    ])
  })

  it('name the routes that a change of them changes, and change them all at once, each with its revision', async () => {
    const [one, two] = codes as [Code, Code]
    const [{ routes } = { routes: [] }] = (await flimbo.ask<{ rows: LaneSet[] }>('GET', '/api/lane-sets'))
      .body.rows
    expect(routes.map(({ name }) => name)).toEqual(['one', 'two'])
    set = (await change({ lanes: [lane('nl', 'NL', 'hollands')] })).body
    expect([await leads(one), await leads(two)]).toEqual(['/hollands', '/own'])
    const newest = flimbo.rows<{ was: string; now: string }>(
      `SELECT "before" ->> '$.sharedLanes[0].outcome.address' AS was, "after" ->> '$.sharedLanes[0].outcome.address' AS now FROM revisions WHERE id = (SELECT max(revisionId) FROM scans WHERE codeId = ?)`,
      one.id,
    )
    expect(newest).toEqual([
      { was: 'https://saltmarsh.example/dutch', now: 'https://saltmarsh.example/hollands' },
    ])
  })

  it('are told apart in what publishing changes', async () => {
    const [, , three] = codes as [Code, Code, Code]
    await draft(three.routeId, { shared: { setId: set.id, place: 'first' } })
    const { changes, elsewhere } = (await flimbo.ask<Effect>('GET', path(three.routeId, '/effect'))).body
    expect([changes, elsewhere]).toEqual([
      [
        'a new lane: Scans in Netherlands → saltmarsh.example/hollands',
        'shared lanes are asked before its own',
      ],
      1,
    ])
  })

  it('are not overwritten by an older change, nor taken away while a route or a draft uses them', async () => {
    expect(
      (await flimbo.refused('PATCH', `/api/lane-sets/${String(set.id)}`, { version: 1, name: 'Late' })).type,
    ).toBe('/problems/conflict')
    expect((await flimbo.refused('DELETE', `/api/lane-sets/${String(set.id)}`)).detail).toContain(
      '“one”, “two”, “three”',
    )
    for (const { routeId } of codes) await live(routeId, { lanes: [lane('x', 'FR', 'x')] })
    expect((await flimbo.ask('DELETE', `/api/lane-sets/${String(set.id)}`)).status).toBe(204)
    const { draftVersion, destination } = await get(codes[0]?.routeId ?? 0)
    expect(
      (
        await flimbo.refused('PATCH', path(codes[0]?.routeId ?? 0, '/draft'), {
          draftVersion,
          destination,
          rules: { ...NO_RULES, shared: { setId: set.id, place: 'last' } },
        })
      ).fields?.[0]?.message,
    ).toContain('do not exist any more')
  })

  it.each<[string, object]>([
    [
      'a lane that leads on to a route',
      { name: 'A', lanes: [{ ...lane('a', 'DE', 'a'), outcome: { kind: 'route', routeId: 1 } }] },
    ],
    [
      'a way back to the front door',
      {
        name: 'A',
        lanes: [
          {
            ...lane('a', 'DE', 'a'),
            outcome: { kind: 'address', address: 'http://go.saltmarsh.example/one' },
          },
        ],
      },
    ],
    ['no name', { name: ' ', lanes: [] }],
  ])('with %s are refused', async (_what, body) => {
    expect((await flimbo.refused('POST', '/api/lane-sets', body)).status).toBe(422)
  })
})
