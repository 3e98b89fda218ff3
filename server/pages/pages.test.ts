import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import type { Page } from '@flimbo/core/pages'
import {
  NO_RULES,
  openLife,
  type Lane,
  type LaneSet,
  type Rules,
  type WholeRoute,
} from '@flimbo/core/routing'
import { DOOR, runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const CONTENT = {
  title: 'Tides <today>',
  text: 'Mind the mud.',
  links: [{ label: 'Tide table', address: 'https://saltmarsh.example/tides' }],
}
const make = async (name: string, change = {}) =>
  (await flimbo.ask<Page>('POST', '/api/pages', { campaignId, name, ...CONTENT, ...change })).body
const change = (page: Page, part: object) =>
  flimbo.ask<Page>('PATCH', `/api/pages/${String(page.id)}`, { version: page.version, ...part })
const toPage = (pageId: number): Lane => ({
  id: 'page',
  name: '',
  condition: EVERY_SCAN,
  outcome: { kind: 'page', pageId },
  resting: false,
})
async function leading(slug: string, rules: Partial<Rules>): Promise<Code> {
  const code = await flimbo.code(campaignId, { slug })
  await flimbo.live(code.routeId, { ...NO_RULES, ...rules })
  return code
}

describe('a page that a lane leads to', () => {
  it('is shown at the short link itself, its links tagged, and the scan is on its lane', async () => {
    const page = await make('Tides')
    const code = await leading('tides', { lanes: [toPage(page.id)] })
    const { status, body, headers } = await flimbo.scan('/tides?ref=a')
    expect([status, headers['cache-control'], String(body).length < 30_000]).toEqual([200, 'no-store', true])
    expect(body).toContain('<h1>Tides &lt;today&gt;</h1><p>Mind the mud.</p>')
    expect(body).toContain(
      'href="https://saltmarsh.example/tides?ref=a&amp;utm_source=pier-poster&amp;utm_medium=print&amp;utm_campaign=summer-26"',
    )
    expect(flimbo.rows('SELECT outcome, exit, apart FROM scans WHERE codeId = ?', code.id)).toEqual([
      { outcome: 'page', exit: 'page', apart: null },
    ])
  })

  it('shows what was saved by the next scan, as a revision of each route that leads to it', async () => {
    const page = await make('Live')
    const code = await leading('live', { lanes: [toPage(page.id)] })
    const before = await flimbo.route(code.routeId)
    const { body } = await change(page, { title: 'High water' })
    expect([body.version, body.routes]).toEqual([2, [{ id: code.routeId, name: 'Pier poster, east gate' }]])
    expect((await flimbo.scan('/live')).body).toContain('<h1>High water</h1>')
    expect((await flimbo.route(code.routeId)).version).toBe(before.version + 1)
    const [newest] = flimbo.rows<{ was: string; is: string }>(
      `SELECT "before" ->> '$.pages[0].title' AS was, "after" ->> '$.pages[0].title' AS "is" FROM revisions WHERE "of" = 'route' AND subjectId = ? ORDER BY id DESC LIMIT 1`,
      code.routeId,
    )
    expect(newest).toEqual({ was: 'Tides <today>', is: 'High water' })
  })

  it('may stand where a limit is reached, in a split, and in a set of lanes', async () => {
    const page = await make('Everywhere')
    await leading('full', { life: { ...openLife('UTC'), limit: 1, full: { kind: 'page', pageId: page.id } } })
    await flimbo.scan('/full')
    expect((await flimbo.scan('/full')).body).toContain('Mind the mud.')
    const { id: setId } = (
      await flimbo.ask<LaneSet>('POST', '/api/lane-sets', { name: 'Weather', lanes: [toPage(page.id)] })
    ).body
    await leading('shared', { shared: { setId, place: 'first' } })
    expect((await flimbo.scan('/shared')).body).toContain('Mind the mud.')
    await change(page, { text: 'The mud is deep.' })
    expect((await flimbo.scan('/shared')).body).toContain('The mud is deep.')
    expect((await flimbo.refused('DELETE', `/api/pages/${String(page.id)}`)).detail).toBe(
      '“Pier poster, east gate”, “Weather” lead to “Everywhere”. Lead them elsewhere first.',
    )
  })
})

describe('keeping pages', () => {
  it('lists them by name, with the routes that lead there', async () => {
    const other = (await flimbo.campaign('Other', 'other')).id
    await make('B', { campaignId: other })
    await make('A', { campaignId: other })
    expect(
      (await flimbo.ask<{ rows: Page[] }>('GET', `/api/pages?campaignId=${String(other)}`)).body.rows.map(
        ({ name, routes }) => [name, routes],
      ),
    ).toEqual([
      ['A', []],
      ['B', []],
    ])
    expect((await flimbo.ask<{ pages: number }>('GET', `/api/campaigns/${String(other)}`)).body.pages).toBe(2)
  })

  it('finds one by its name or heading', async () => {
    const { id } = await make('Harbour hours', { title: 'When we open' })
    for (const q of ['harbour', 'WE OPEN'])
      expect(
        (await flimbo.ask<{ hits: object[] }>('GET', `/api/find?q=${encodeURIComponent(q)}`)).body.hits,
      ).toEqual([{ kind: 'page', id, campaignId, name: 'Harbour hours', detail: 'When we open' }])
  })

  it('overwrites nothing that somebody else saved', async () => {
    const page = await make('Twice')
    await change(page, { title: 'Mine' })
    const { status, body } = await flimbo.ask<{ current: Page }>('PATCH', `/api/pages/${String(page.id)}`, {
      version: 1,
      title: 'Theirs',
    })
    expect([status, body.current.title]).toEqual([409, 'Mine'])
  })

  it('takes one away that nothing leads to, not even a draft', async () => {
    const page = await make('Gone')
    const { routeId } = await flimbo.code(campaignId, { slug: 'gone' })
    await flimbo.draft(routeId, { ...NO_RULES, lanes: [toPage(page.id)] })
    expect((await flimbo.refused('DELETE', `/api/pages/${String(page.id)}`)).detail).toContain(
      'leads to “Gone”',
    )
    await flimbo.ask('DELETE', `/api/routes/${String(routeId)}/draft`)
    expect((await flimbo.ask('DELETE', `/api/pages/${String(page.id)}`)).status).toBe(204)
    expect((await flimbo.draft(routeId, { ...NO_RULES, lanes: [toPage(page.id)] })).body).toMatchObject({
      fields: [
        { path: 'rules', message: 'A lane or a bound leads to a page that does not exist. Choose another.' },
      ],
    })
  })

  it('refuses a link to the front door itself, a page of nobody, and other people’s', async () => {
    expect(
      (
        await flimbo.refused('POST', '/api/pages', {
          campaignId,
          name: 'x',
          ...CONTENT,
          links: [{ label: 'Round', address: `${DOOR}/PIER` }],
        })
      ).fields?.[0],
    ).toMatchObject({ path: 'links.0.address', message: expect.stringContaining('in a circle') as string })
    expect([
      (await flimbo.refused('PATCH', '/api/pages/999', { version: 1 })).status,
      (await flimbo.refused('POST', '/api/pages', { campaignId: 999, name: 'x', ...CONTENT })).status,
    ]).toEqual([404, 404])
  })

  it('says in words what publishing changes, and for whom', async () => {
    const page = await make('Words')
    const code = await flimbo.code(campaignId, { slug: 'words' })
    for (let n = 0; n < 3; n++) await flimbo.scan('/words')
    await flimbo.draft(code.routeId, { ...NO_RULES, lanes: [toPage(page.id)] })
    const { changes, moved } = (
      await flimbo.ask<{ changes: string[]; moved: { is: string; scans: number }[] }>(
        'GET',
        `/api/routes/${String(code.routeId)}/effect`,
      )
    ).body
    expect([changes, moved.map(({ is, scans }) => [is, scans])]).toEqual([
      ['a new lane: Every scan → the page “Words”'],
      [['the page “Words”', 3]],
    ])
    expect(
      (await flimbo.ask<WholeRoute>('GET', `/api/routes/${String(code.routeId)}`)).body.draft?.rules.lanes,
    ).toHaveLength(1)
  })
})
