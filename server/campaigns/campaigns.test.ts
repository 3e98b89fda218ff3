import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Route } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

const path = ({ id }: { id: number }) => `/api/campaigns/${String(id)}`
const list = async (query = '') =>
  (await flimbo.ask<{ rows: Campaign[]; total: number }>('GET', `/api/campaigns?${query}`)).body

describe('a campaign', () => {
  it('begins with what was given and nothing counted', async () => {
    const { status, body } = await flimbo.ask<Campaign>('POST', '/api/campaigns', {
      name: ' Seal watching ',
      zone: 'Europe/Copenhagen',
      utmCampaign: 'seals',
      startsOn: '2026-05-01',
    })
    expect(status).toBe(201)
    expect(body).toMatchObject({
      name: 'Seal watching',
      zone: 'Europe/Copenhagen',
      startsOn: '2026-05-01',
      endsOn: null,
      codes: 0,
      routes: 0,
      version: 1,
      scans: { scans: 0, uniques: 0, lastAt: null },
    })
    expect(body.recent).toEqual(Array.from({ length: 30 }, () => 0))
  })

  it.each([
    [{ zone: 'Mars/Olympus' }, 'zone'],
    [{ utmCampaign: '  ' }, 'utmCampaign'],
    [{ startsOn: '2026-02-30' }, 'startsOn'],
    [{ clientId: 999 }, 'clientId'],
    [{ name: 'two\nlines' }, 'name'],
  ])('does not begin with %j', async (more, field) => {
    expect(
      (await flimbo.refused('POST', '/api/campaigns', { name: 'A', zone: 'UTC', utmCampaign: 'a', ...more }))
        .fields?.[0]?.path,
    ).toBe(field)
  })

  it('changes field by field, and its days stay in order across two changes', async () => {
    const campaign = await flimbo.campaign('Dates')
    expect(
      (await flimbo.ask<Campaign>('PATCH', path(campaign), { version: 1, endsOn: '2026-06-30' })).body,
    ).toMatchObject({ name: 'Dates', endsOn: '2026-06-30', version: 2 })
    expect(
      (await flimbo.refused('PATCH', path(campaign), { version: 2, startsOn: '2026-07-01' })).fields?.[0]
        ?.path,
    ).toBe('endsOn')
    expect(
      (
        await flimbo.ask<Campaign>('PATCH', path(campaign), {
          version: 2,
          endsOn: null,
          startsOn: '2026-07-01',
        })
      ).body,
    ).toMatchObject({ startsOn: '2026-07-01', endsOn: null })
  })

  it('counts what answers or rests, not what was deleted before anybody scanned it', async () => {
    const campaign = await flimbo.campaign('Counting')
    const kept = await flimbo.code(campaign.id)
    const gone = await flimbo.code(campaign.id, { routeId: kept.routeId })
    await flimbo.scan(`/${kept.slug}`)
    expect(
      (await flimbo.refused('PATCH', `/api/codes/${String(kept.id)}`, { version: 1, state: 'deleted' }))
        .detail,
    ).toContain('Archive it instead')
    await flimbo.ask('PATCH', `/api/codes/${String(gone.id)}`, { version: 1, state: 'deleted' })
    const { body } = await flimbo.ask<Campaign>('GET', path(campaign))
    expect(body).toMatchObject({ codes: 1, routes: 1, scans: { scans: 1 } })
    expect(body.recent.at(-1)).toBe(1)
    expect((await flimbo.ask<Route>('GET', `/api/routes/${String(kept.routeId)}`)).body.codes).toBe(1)
  })

  it('is in a list that is sorted and paged', async () => {
    const byName = (await list('sort=name')).rows.map(({ name }) => name)
    expect(byName).toEqual([...byName].sort((a, b) => a.localeCompare(b)))
    expect((await list('sort=scans&order=desc')).rows[0]?.name).toBe('Counting')
    expect((await list('sort=lastScan&order=desc')).rows[0]?.name).toBe('Counting')
    const { rows, total } = await list('sort=name&pageSize=1&page=1')
    expect([rows.map(({ name }) => name), total]).toEqual([[byName[1]], byName.length])
    expect((await flimbo.refused('GET', '/api/campaigns?sort=colour')).detail).toContain('Sort by one of')
  })
})
