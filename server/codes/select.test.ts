import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import { CODE_SORTS, type Code } from '@flimbo/core/codes'
import { runningFlimbo, type Running } from '../tests/running.ts'

interface Page {
  rows: Code[]
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
  const first = await flimbo.code(campaign.id, {
    name: 'Banner',
    medium: 'screen',
    source: 'b',
    content: 'x',
    term: 't',
    place: 'Pier',
    sizeMm: 90,
    viewingM: 2,
    printRun: 10,
    cost: 5,
    liveOn: '2026-03-01',
    downOn: '2026-04-01',
    reference: 'R-1',
    key: 'k1',
    slug: 'zz-first',
  })
  await flimbo.code(campaign.id, {
    name: 'Ábaco',
    source: 'a',
    place: 'Depot 100%',
    sizeMm: 30,
    cost: 9,
    liveOn: '2026-01-01',
    key: 'k2',
    slug: 'aa-second',
    routeId: first.routeId,
  })
  await flimbo.code(campaign.id, {
    name: 'Coaster',
    source: 'c',
    sizeMm: 45,
    printRun: 3,
    reference: 'R_2',
    slug: 'mm-third',
    destination: 'https://saltmarsh.example/c',
  })
  await flimbo.scan('/mm-third')
  await flimbo.scan('/mm-third')
  await flimbo.scan('/aa-second')
})
afterAll(() => flimbo.close())

const list = async (query: string) =>
  (await flimbo.ask<Page>('GET', `/api/codes?campaignId=${String(campaign.id)}&${query}`)).body
const slugs = async (query: string) => (await list(query)).rows.map(({ slug }) => slug.slice(0, 2))

describe('the order of a plan', () => {
  it.each([
    ['slug', ['AA', 'MM', 'ZZ']],
    ['source', ['AA', 'ZZ', 'MM']],
    ['sizeMm', ['AA', 'MM', 'ZZ']],
    ['scans', ['ZZ', 'AA', 'MM']],
    ['createdAt', ['ZZ', 'AA', 'MM']],
    ['liveOn', ['AA', 'ZZ', 'MM']],
    ['cost', ['ZZ', 'AA', 'MM']],
    ['printRun', ['MM', 'ZZ', 'AA']],
    ['reference', ['ZZ', 'MM', 'AA']],
    ['route', ['ZZ', 'AA', 'MM']],
  ])('rises by %s, and what has no value stands last', async (sort, order) => {
    expect(await slugs(`sort=${sort}`)).toEqual(order)
  })

  it.each([
    ['cost', ['AA', 'ZZ', 'MM']],
    ['printRun', ['ZZ', 'MM', 'AA']],
    ['lastScan', ['AA', 'MM', 'ZZ']],
    ['place', ['ZZ', 'AA', 'MM']],
  ])('falls by %s, and what has no value stands last all the same', async (sort, order) => {
    expect(await slugs(`sort=${sort}&order=desc`)).toEqual(order)
  })

  it.each(CODE_SORTS)('by %s holds every piece once, whichever way and group', async (sort) => {
    for (const more of ['', '&order=desc', '&group=medium', '&group=route&order=desc']) {
      expect([more, (await slugs(`sort=${sort}${more}`)).sort()]).toEqual([more, ['AA', 'MM', 'ZZ']])
    }
  })

  it('is cut into pages that follow each other', async () => {
    const pages = await Promise.all(
      [0, 1, 2, 3].map((page) => list(`sort=slug&pageSize=1&page=${String(page)}`)),
    )
    expect(pages.map(({ rows, total }) => [rows[0]?.slug, total])).toEqual([
      ['AA-SECOND', 3],
      ['MM-THIRD', 3],
      ['ZZ-FIRST', 3],
      [undefined, 3],
    ])
  })

  it('is another one after a change, at once', async () => {
    expect(await slugs('sort=name')).toHaveLength(3)
    const {
      rows: [row],
    } = await list('search=mm-third')
    await flimbo.ask('PATCH', `/api/codes/${String(row?.id)}`, { version: 1, name: 'AAA' })
    expect((await slugs('sort=name'))[0]).toBe('MM')
  })
})

describe('which pieces are listed', () => {
  it.each([
    ['search=banner', ['ZZ']],
    ['search=aa-SECOND', ['AA']],
    [`search=${encodeURIComponent('100%')}`, ['AA']],
    ['search=r_2', ['MM']],
    ['search=k1', ['ZZ']],
    ['search=nothing', []],
    ['medium=screen', ['ZZ']],
    ['source=c', ['MM']],
    ['medium=print&search=depot', ['AA']],
    ['state=paused', []],
    ['shown=archived', []],
    ['shown=all', ['AA', 'MM', 'ZZ']],
    ['finding=missing', []],
    ['channel=Offline%20screen', ['ZZ']],
    ['channel=-', []],
  ])('%s', async (query, found) => {
    expect(await slugs(`${query}&sort=slug`)).toEqual(found)
  })

  it('those of a route, whichever campaign is named', async () => {
    const {
      rows: [row],
    } = await list('search=banner')
    const { body } = await flimbo.ask<Page>('GET', `/api/codes?routeId=${String(row?.routeId)}&sort=slug`)
    expect(body.rows.map(({ slug }) => slug)).toEqual(['AA-SECOND', 'ZZ-FIRST'])
  })

  it.each(['sort=colour', 'group=place', 'pageSize=501', 'page=-1', 'finding=colour', 'shown=some'])(
    'refuses %s',
    async (query) => {
      expect(
        (await flimbo.refused('GET', `/api/codes?campaignId=${String(campaign.id)}&${query}`)).status,
      ).toBe(422)
    },
  )
})
