import { request, type IncomingHttpHeaders } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code, CodeCellChange } from '@flimbo/core/codes'
import type { Page } from '@flimbo/core/pages'
import { NO_RULES, openLife, type Route } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from './running.ts'

interface Outcome {
  changed: number
  refused: { sentence: string }[]
  undo: CodeCellChange[]
}

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

const change = async (body: object) => (await flimbo.ask<Outcome>('POST', '/api/codes/changes', body)).body
const routesOf = async (campaign: Campaign) =>
  (await flimbo.ask<{ rows: Route[] }>('GET', `/api/routes?campaignId=${String(campaign.id)}`)).body.rows
const one = async (id: number) => (await flimbo.ask<Code>('GET', `/api/codes/${String(id)}`)).body

describe('what pieces lead to', () => {
  it('is never a route that was deleted: not by a change, an issue or a move', async () => {
    const campaign = await flimbo.campaign('Deleted routes', 'deleted')
    const [piece, other] = [await flimbo.code(campaign.id), await flimbo.code(campaign.id, { name: 'Gone' })]
    const gone = other.routeId
    // Only what no piece leads to can be deleted.
    await change({ changes: [{ id: other.id, set: { routeId: piece.routeId } }] })
    const { version } = await flimbo.route(gone)
    const deleted = await flimbo.ask('PATCH', `/api/routes/${String(gone)}`, { version, state: 'deleted' })
    expect(deleted.status).toBe(200)
    expect((await change({ changes: [{ id: piece.id, set: { routeId: gone } }] })).refused).toHaveLength(1)
    await flimbo.refused('POST', '/api/codes', {
      campaignId: campaign.id,
      name: 'C',
      medium: 'print',
      source: 's',
      routeId: gone,
    })
    await flimbo.refused('POST', '/api/codes/moves', {
      ids: [piece.id],
      campaignId: campaign.id,
      routeId: gone,
    })
    expect([(await one(piece.id)).routeId, (await flimbo.scan(`/${piece.slug}`)).status]).toEqual([
      piece.routeId,
      302,
    ])
  })

  it('changes on the route a piece is given, not on the one it leaves, where both are told at once', async () => {
    const campaign = await flimbo.campaign('Route and destination', 'both')
    const [a, b] = [
      await flimbo.code(campaign.id, { name: 'A' }),
      await flimbo.code(campaign.id, { name: 'B' }),
    ]
    await flimbo.code(campaign.id, { name: 'A too', routeId: a.routeId })
    await change({
      changes: [
        { id: a.id, set: { routeId: b.routeId, destination: 'https://saltmarsh.example/elsewhere' } },
      ],
    })
    expect((await flimbo.route(a.routeId)).destination).toContain('/timetable')
  })

  it('is a copy in use where a deleted piece is duplicated', async () => {
    const campaign = await flimbo.campaign('Deleted pieces', 'copies')
    const piece = await flimbo.code(campaign.id)
    await change({ changes: [{ id: piece.id, set: { state: 'deleted' } }] })
    const { status, body } = await flimbo.ask<{ ids: number[] }>('POST', '/api/codes/copies', {
      ids: [piece.id],
    })
    expect(status).toBe(201)
    const copy = await one(body.ids[0] ?? 0)
    expect([copy.state, (await flimbo.scan(`/${copy.slug}`)).status]).toEqual(['live', 302])
  })

  it('is the copy’s own in a duplicated campaign: its routes and pages, a year later', async () => {
    const campaign = await flimbo.campaign('Season', 'season')
    const [piece, target] = [
      await flimbo.code(campaign.id),
      await flimbo.code(campaign.id, { name: 'Target' }),
    ]
    const page = await flimbo.page(campaign.id, 'Closed', [])
    await flimbo.live(piece.routeId, {
      ...NO_RULES,
      lanes: [
        {
          id: 'on',
          name: '',
          condition: { kind: 'all', of: [] },
          outcome: { kind: 'route', routeId: target.routeId },
          resting: false,
        },
      ],
      life: {
        ...openLife('Europe/Berlin'),
        endsAt: '2026-12-31T00:00',
        after: { kind: 'page', pageId: page.id },
      },
    })
    const made = await flimbo.ask<Campaign>('POST', `/api/campaigns/${String(campaign.id)}/copies`, {
      name: 'Season again',
      utmCampaign: 'season-27',
      pieceDays: 'shift',
      startsOn: null,
      endsOn: null,
    })
    expect(made.status).toBe(201)
    const own = await routesOf(made.body)
    const [copy, copiedTarget] = ['Pier poster, east gate', 'Target'].map((name) =>
      own.find((route) => route.name === name),
    )
    const pages = (await flimbo.ask<{ rows: Page[] }>('GET', `/api/pages?campaignId=${String(made.body.id)}`))
      .body.rows
    const { rules } = await flimbo.route(copy?.id ?? 0)
    expect(pages.map(({ name }) => name)).toEqual(['Closed'])
    expect(rules.lanes[0]?.outcome).toEqual({ kind: 'route', routeId: copiedTarget?.id })
    expect(rules.life).toMatchObject({
      endsAt: '2027-12-31T00:00',
      after: { kind: 'page', pageId: pages[0]?.id },
    })
  })
})

describe('the office', () => {
  it('sends answers of a kilobyte and more compressed to whoever takes them so', async () => {
    const campaign = await flimbo.campaign('Compressed', 'compressed')
    for (let i = 0; i < 5; i++) await flimbo.code(campaign.id, { name: `Piece ${String(i)}` })
    const path = `/api/codes?campaignId=${String(campaign.id)}`
    const encodingOf = async (accepted: Record<string, string>) =>
      (await headersOf(accepted))['content-encoding']
    const headersOf = (accepted: Record<string, string>) =>
      new Promise<IncomingHttpHeaders>((resolve, reject) => {
        request(
          {
            host: '127.0.0.1',
            port: flimbo.ports.office,
            path,
            headers: { cookie: flimbo.cookie, ...accepted },
          },
          (response) => {
            response.resume()
            resolve(response.headers)
          },
        )
          .on('error', reject)
          .end()
      })
    expect([await encodingOf({}), await encodingOf({ 'accept-encoding': 'gzip' })]).toEqual([
      undefined,
      'gzip',
    ])
    expect((await headersOf({ 'accept-encoding': 'gzip' })).vary).toMatch(/accept-encoding/i)
  })

  it('lets viewers keep their own choices, and nobody else’s', async () => {
    const viewer = flimbo.person('viewer')
    expect((await viewer('PATCH', '/api/preferences', { planColumns: ['name'] })).status).toBe(200)
    expect((await viewer<{ planColumns: string[] }>('GET', '/api/preferences')).body.planColumns).toEqual([
      'name',
    ])
    expect(
      (await flimbo.ask<{ planColumns: string[] | null }>('GET', '/api/preferences')).body.planColumns,
    ).toBeNull()
  })
})
