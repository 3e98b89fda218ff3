import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import Sqlite from 'better-sqlite3'
import type { Campaign } from '@flimbo/core/campaigns'
import { isSlug, SLUG_SIGNS, type Code } from '@flimbo/core/codes'
import type { Revision, Route } from '@flimbo/core/routing'
import { DOOR, runningFlimbo, type Running } from '../tests/running.ts'

interface Page<T> {
  rows: T[]
  total: number
  page: number
  pageSize: number
}

let flimbo: Running
let campaign: Campaign
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaign = await flimbo.campaign()
})
afterAll(() => flimbo.close())

const piece = (more: object = {}) => ({
  campaignId: campaign.id,
  name: 'Poster',
  medium: 'print',
  source: 'poster',
  destination: 'https://saltmarsh.example/a',
  ...more,
})

describe('issuing a code', () => {
  it('makes a route with one code out of a name and a destination', async () => {
    const code = await flimbo.code(campaign.id)
    expect(code).toMatchObject({
      name: 'Pier poster, east gate',
      routeName: 'Pier poster, east gate',
      routeCodes: 1,
      state: 'live',
      version: 1,
      level: 'M',
      sizeMm: 30,
      scans: { scans: 0, uniques: 0, lastAt: null },
    })
    expect(code.shortLink).toBe(`${DOOR}/${code.slug}`)
    expect(code.finalAddress).toBe(
      'https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26#today',
    )
  })

  it('chooses short links without look-alikes, in no sequence', async () => {
    const slugs = await Promise.all(
      Array.from({ length: 20 }, async () => (await flimbo.code(campaign.id)).slug),
    )
    expect(new Set(slugs).size).toBe(20)
    for (const slug of slugs)
      expect([...slug].every((sign) => SLUG_SIGNS.includes(sign)) && isSlug(slug) && slug.length === 6).toBe(
        true,
      )
  })

  it('lets several share a route', async () => {
    const first = await flimbo.code(campaign.id, { name: 'Poster' })
    const second = await flimbo.code(campaign.id, {
      name: 'Leaflet',
      source: 'leaflet',
      routeId: first.routeId,
    })
    expect(second).toMatchObject({ routeId: first.routeId, routeName: 'Poster', routeCodes: 2 })
    expect(second.finalAddress).toContain('utm_source=leaflet')
  })

  it('shows which of the destination’s own values its tags take the place of', async () => {
    const { clashes } = await flimbo.code(campaign.id, {
      destination: 'https://saltmarsh.example/?utm_medium=web',
    })
    expect(clashes).toEqual([{ name: 'utm_medium', replaced: 'web', by: 'print' }])
  })

  it.each([
    ['a destination back at the front door', { destination: `${DOOR}/PIER` }, 'destination', 'in a circle'],
    [
      'a destination that is no web page',
      { destination: 'mailto:x@saltmarsh.example' },
      'destination',
      'https://',
    ],
    ['a name of 10,000 characters', { name: 'x'.repeat(10_000) }, 'name', 'no longer than 200'],
    ['a short link with forbidden signs', { slug: 'straße' }, 'slug', 'letters A to Z'],
    ['a field nobody knows', { colour: 'red' }, 'colour', 'not a field'],
    ['a route of another campaign', { destination: undefined, routeId: 9999 }, 'routeId', 'does not exist'],
  ])('refuses %s with a sentence at its field, and stores nothing', async (_name, more, field, sentence) => {
    const before = flimbo.rows('SELECT id FROM codes').length
    const { status, fields } = await flimbo.refused('POST', '/api/codes', piece(more))
    expect([status, fields?.[0]?.path]).toEqual([422, field])
    expect(fields?.[0]?.message).toContain(sentence)
    expect(flimbo.rows('SELECT id FROM codes')).toHaveLength(before)
  })

  it('refuses a taken short link in any case, and a deleted code’s too', async () => {
    const code = await flimbo.code(campaign.id, { slug: 'mine' })
    await flimbo.ask('PATCH', `/api/codes/${String(code.id)}`, { version: 1, state: 'deleted' })
    expect(await flimbo.refused('POST', '/api/codes', piece({ slug: 'MINE' }))).toMatchObject({
      status: 409,
      fields: [{ path: 'slug', message: 'The short link MINE is taken. Choose another.' }],
    })
    expect((await flimbo.ask('GET', '/api/slugs/mine')).body).toMatchObject({
      free: false,
      instead: expect.arrayContaining(['MINE-2']) as string[],
    })
    expect((await flimbo.ask('GET', '/api/slugs/other-one')).body).toEqual({
      slug: 'OTHER-ONE',
      shortLink: `${DOOR}/OTHER-ONE`,
      free: true,
      instead: [],
    })
    expect((await flimbo.ask('GET', '/api/slugs/x!')).body).toMatchObject({
      free: false,
      why: expect.stringContaining('3 characters') as string,
    })
  })

  it('gives one of two people who choose the same at once the short link, and the other a sentence', async () => {
    const answers = await Promise.all(
      [1, 2, 3].map(() => flimbo.ask('POST', '/api/codes', piece({ slug: 'race' }))),
    )
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409])
  })
})

describe('changing', () => {
  it('stores every change as a revision: who, when, before, after', async () => {
    const code = await flimbo.code(campaign.id)
    const began = Date.now()
    await flimbo.ask('PATCH', `/api/routes/${String(code.routeId)}`, {
      version: 1,
      destination: 'https://saltmarsh.example/winter',
    })
    await flimbo.ask('PATCH', `/api/codes/${String(code.id)}`, {
      version: 1,
      source: 'banner',
      state: 'paused',
    })
    const { body: ofRoute } = await flimbo.ask<Page<Revision>>(
      'GET',
      `/api/routes/${String(code.routeId)}/revisions?order=desc`,
    )
    const { body: ofCode } = await flimbo.ask<Page<Revision>>(
      'GET',
      `/api/codes/${String(code.id)}/revisions`,
    )
    expect(ofRoute.rows.map(({ number }) => number)).toEqual([2, 1])
    expect(ofRoute.rows[0]).toMatchObject({
      by: 'Anna Petersen',
      before: { destination: 'https://saltmarsh.example/timetable?lang=de#today' },
      after: { destination: 'https://saltmarsh.example/winter' },
    })
    expect(ofRoute.rows[0]?.at).toBeGreaterThanOrEqual(began)
    expect(ofCode.rows.map(({ before, after }) => [before?.source, after.source, after.state])).toEqual([
      [undefined, 'pier-poster', 'live'],
      ['pier-poster', 'banner', 'paused'],
    ])
  })

  it('makes no revision of what stays the same', async () => {
    const code = await flimbo.code(campaign.id)
    const { body } = await flimbo.ask<Code>('PATCH', `/api/codes/${String(code.id)}`, {
      version: 1,
      name: code.name,
    })
    expect(body.version).toBe(1)
    expect(
      flimbo.rows('SELECT id FROM revisions WHERE "of" = \'code\' AND subjectId = ?', code.id),
    ).toHaveLength(1)
  })

  it.each(['codes', 'routes'] as const)(
    'refuses to overwrite a newer state of %s, and shows it',
    async (kind) => {
      const code = await flimbo.code(campaign.id)
      const path = `/api/${kind}/${String(kind === 'codes' ? code.id : code.routeId)}`
      await flimbo.ask('PATCH', path, { version: 1, name: 'Theirs' })
      const problem = await flimbo.refused('PATCH', path, { version: 1, name: 'Mine' })
      expect(problem).toMatchObject({
        status: 409,
        type: '/problems/conflict',
        current: { name: 'Theirs', version: 2 },
      })
      expect((await flimbo.ask<Code | Route>('GET', path)).body.name).toBe('Theirs')
      expect((await flimbo.ask('PATCH', path, { version: 2, name: 'Mine' })).status).toBe(200)
    },
  )

  it('lets exactly one of many at once through', async () => {
    const code = await flimbo.code(campaign.id)
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        flimbo.ask('PATCH', `/api/routes/${String(code.routeId)}`, { version: 1, note: `try ${String(i)}` }),
      ),
    )
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(answers.filter(({ status }) => status === 409)).toHaveLength(11)
  })

  it('a campaign’s value changes what all its codes carry', async () => {
    const other = await flimbo.campaign('Winter', 'winter-26')
    const code = await flimbo.code(other.id)
    await flimbo.scan(`/${code.slug}`)
    expect(
      (await flimbo.refused('PATCH', `/api/campaigns/${String(other.id)}`, { version: 7, name: 'X' })).status,
    ).toBe(409)
    await flimbo.ask('PATCH', `/api/campaigns/${String(other.id)}`, { version: 1, utmCampaign: 'winter-27' })
    expect((await flimbo.scan(`/${code.slug}`)).headers.location).toContain('utm_campaign=winter-27')
  })
})

describe('lists', () => {
  it('are paged, sorted and searched on the server', async () => {
    const own = await flimbo.campaign('Lists')
    for (const [i, name] of ['Coaster', 'Banner', 'Ticket 100%', 'Ticket_1'].entries())
      await flimbo.code(own.id, { name, slug: `list-${String(i)}`, source: 'list' })
    for (const slug of ['list-1', 'list-1', 'list-3']) await flimbo.scan(`/${slug}`)
    const list = async (query: string) =>
      (await flimbo.ask<Page<Code>>('GET', `/api/codes?campaignId=${String(own.id)}&${query}`)).body
    expect((await list('sort=name&pageSize=2&page=1')).rows.map(({ name }) => name)).toEqual([
      'Ticket 100%',
      'Ticket_1',
    ])
    expect((await list('sort=scans&order=desc')).rows.map(({ slug, scans }) => [slug, scans.scans])).toEqual([
      ['LIST-1', 2],
      ['LIST-3', 1],
      ['LIST-0', 0],
      ['LIST-2', 0],
    ])
    expect((await list('sort=lastScan&order=asc')).rows.map(({ slug }) => slug)).toEqual([
      'LIST-1',
      'LIST-3',
      'LIST-0',
      'LIST-2',
    ])
    // % and _ are letters of a search, not wildcards.
    expect((await list(`search=${encodeURIComponent('100%')}`)).rows.map(({ name }) => name)).toEqual([
      'Ticket 100%',
    ])
    expect((await list('search=t_1')).rows.map(({ name }) => name)).toEqual(['Ticket_1'])
    expect((await list('search=list-2')).total).toBe(1)
    expect((await flimbo.refused('GET', '/api/codes')).fields?.[0]?.path).toBe('campaignId')
  })

  it('find things by any part of what they are called', async () => {
    const { body } = await flimbo.ask<{ hits: { kind: string; name: string }[] }>('GET', '/api/find?q=winter')
    expect(body.hits.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['campaign', 'route']))
  })
})

describe('what belongs to another workspace', () => {
  it('is not there', async () => {
    const code = await flimbo.code(campaign.id)
    const database = new Sqlite(flimbo.file)
    database.exec(
      "INSERT INTO workspaces (name, zone, createdAt) VALUES ('Other', 'UTC', 0); UPDATE people SET workspaceId = 2",
    )
    try {
      for (const path of [
        `/api/codes/${String(code.id)}`,
        `/api/codes/${String(code.id)}/file?format=svg`,
        `/api/routes/${String(code.routeId)}`,
        `/api/campaigns/${String(campaign.id)}`,
        `/api/codes?campaignId=${String(campaign.id)}`,
        `/api/results?codeId=${String(code.id)}&from=2026-07-01&to=2026-07-01`,
        `/api/scans?codeId=${String(code.id)}`,
      ]) {
        expect([path, (await flimbo.refused('GET', path)).status]).toEqual([path, 404])
      }
      expect(
        (await flimbo.refused('PATCH', `/api/codes/${String(code.id)}`, { version: 1, name: 'Stolen' }))
          .status,
      ).toBe(404)
    } finally {
      database.exec('UPDATE people SET workspaceId = 1')
      database.close()
    }
  })
})
