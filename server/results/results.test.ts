import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { Results } from '@flimbo/core/results'
import type { Route } from '@flimbo/core/routing'
import type { Scan } from '@flimbo/core/scans'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'

interface Page<T> {
  rows: T[]
  total: number
}
let flimbo: Running
let campaign: Campaign
let poster: Code
let leaflet: Code
let other: Code

const results = async (query: string) => (await flimbo.ask<Results>('GET', `/api/results?${query}`)).body

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaign = await flimbo.campaign()
  poster = await flimbo.code(campaign.id, { name: 'Poster' })
  leaflet = await flimbo.code(campaign.id, { name: 'Leaflet', routeId: poster.routeId })
  other = await flimbo.code((await flimbo.campaign('Other')).id, { name: 'Elsewhere' })
  storeScans(flimbo.file, [
    // The night the clocks go forward in Berlin: 01:30 and 03:30 local are an hour apart.
    { at: '2026-03-29T00:30:00Z', code: poster, city: 'Bremen' },
    { at: '2026-03-29T01:30:00Z', code: poster, city: 'Bremen' },
    // Just before and just after local midnight.
    { at: '2026-03-29T21:59:59.999Z', code: poster, city: 'Emden' },
    { at: '2026-03-29T22:00:00Z', code: leaflet },
    // The night they go back: 02:30 local comes twice.
    { at: '2026-10-25T00:30:00Z', code: poster, visitor: 'same', language: 'nl' },
    { at: '2026-10-25T01:30:00Z', code: poster, visitor: 'same', language: 'nl-BE' },
    { at: '2026-10-25T01:31:00Z', code: leaflet, visitor: 'same', language: '' },
    { at: '2026-10-25T02:00:00Z', code: leaflet, apart: 'crawler' },
    { at: '2026-10-25T02:00:00Z', code: leaflet, apart: 'test' },
    { at: '2026-10-25T02:00:00Z', code: other },
  ])
})
afterAll(() => flimbo.close())

describe('results', () => {
  it('has 23 columns on the day an hour is lost, and the scans in their local hours', async () => {
    const { period } = await results(
      `campaignId=${String(campaign.id)}&from=2026-03-29&to=2026-03-29&unit=hour`,
    )
    expect(period.buckets).toHaveLength(23)
    expect(period.buckets.flatMap(({ scans }, i) => (scans > 0 ? [[i, scans]] : []))).toEqual([
      [1, 1],
      [2, 1],
      [22, 1],
    ])
    expect(period.tally).toEqual({ scans: 3, uniques: 3, lastAt: Date.parse('2026-03-29T21:59:59.999Z') })
  })

  it('has 25 on the day an hour comes twice', async () => {
    const { period } = await results(
      `campaignId=${String(campaign.id)}&from=2026-10-25&to=2026-10-25&unit=hour`,
    )
    expect(period.buckets).toHaveLength(25)
    expect(period.buckets.flatMap(({ scans }, i) => (scans > 0 ? [[i, scans]] : []))).toEqual([
      [2, 1],
      [3, 2],
    ])
  })

  it('counts a visitor once a day at each code', async () => {
    const { period, codes } = await results(`routeId=${String(poster.routeId)}&from=2026-10-25&to=2026-10-25`)
    expect(period.tally).toMatchObject({ scans: 3, uniques: 2 })
    expect(codes.map(({ key, scans, uniques }) => [key, scans, uniques])).toEqual([
      ['Poster', 2, 1],
      ['Leaflet', 1, 1],
    ])
  })

  it('parts the scans by place, device and language, and each part sums to the whole', async () => {
    const all = await results(`campaignId=${String(campaign.id)}&from=2026-01-01&to=2026-12-31`)
    expect(all.cities.map(({ key, scans }) => [key, scans])).toEqual([
      ['', 4],
      ['Bremen', 2],
      ['Emden', 1],
    ])
    expect(all.languages.map(({ key, scans }) => [key, scans])).toEqual([
      ['de', 4],
      ['nl', 2],
      ['', 1],
    ])
    expect(all.systems).toEqual([{ key: 'iOS', scans: 7, uniques: 6 }])
    for (const rows of [
      all.countries,
      all.cities,
      all.devices,
      all.systems,
      all.browsers,
      all.languages,
      all.codes,
      all.period.buckets,
    ]) {
      expect(rows.reduce((sum, row) => sum + row.scans, 0)).toBe(7)
      expect(rows.reduce((sum, row) => sum + row.uniques, 0)).toBe(6)
    }
    expect(all.unit).toBe('week')
  })

  it('names what was kept apart, and counts it nowhere', async () => {
    const { apart, ever } = await results(`codeId=${String(leaflet.id)}&from=2026-10-01&to=2026-10-31`)
    expect(apart).toEqual(
      expect.arrayContaining([
        { kind: 'crawler', requests: 1 },
        { kind: 'test', requests: 1 },
      ]),
    )
    expect(ever.scans).toBe(2)
  })

  it('compares with as many days before', async () => {
    const { period, before } = await results(
      `campaignId=${String(campaign.id)}&from=2026-03-30&to=2026-03-30&compare=yes`,
    )
    expect([period.tally.scans, before?.tally.scans, before?.from, before?.to]).toEqual([
      1,
      3,
      '2026-03-29',
      '2026-03-29',
    ])
  })

  it('marks the moments at which the destination changed, and no other change', async () => {
    const today = new Date().toISOString().slice(0, 10)
    const route = `/api/routes/${String(poster.routeId)}`
    await flimbo.ask('PATCH', route, { version: 1, note: 'no change of where it leads' })
    await flimbo.ask('PATCH', route, { version: 2, destination: 'https://saltmarsh.example/winter' })
    const { changes } = await results(
      `codeId=${String(leaflet.id)}&from=${today.slice(0, 8)}01&to=2099-01-01&unit=year`,
    )
    expect(changes).toEqual([
      {
        at: expect.any(Number) as number,
        routeId: poster.routeId,
        routeName: poster.routeName,
        by: 'Anna Petersen',
        was: poster.destination,
        is: 'https://saltmarsh.example/winter',
      },
    ])
  })

  it.each([
    ['campaignId=1&from=2026-02-02&to=2026-02-01', 'before the first'],
    ['campaignId=1&from=1.2.2026', '2026-07-01'],
    ['campaignId=1&codeId=1', 'Name one'],
    ['', 'Name one'],
    ['campaignId=1&from=2000-01-01&to=2026-01-01&unit=hour', 'larger unit'],
  ])('refuses %j with a sentence', async (query, sentence) => {
    const { status, detail } = await flimbo.refused('GET', `/api/results?${query}`)
    expect([status, detail]).toEqual([422, expect.stringContaining(sentence)])
  })
})

describe('counts on every screen', () => {
  it('agree to the unit', async () => {
    for (let i = 0; i < 9; i++)
      await flimbo.scan(`/${(i % 2 ? poster : leaflet).slug}`, {
        'x-forwarded-for': `198.51.100.${String(i % 4)}`,
      })
    const year = 'from=2020-01-01&to=2099-12-31&unit=year'
    const inResults = (await results(`campaignId=${String(campaign.id)}&${year}`)).period.tally
    const ofCampaign = (await flimbo.ask<Campaign>('GET', `/api/campaigns/${String(campaign.id)}`)).body.scans
    const onDesk = (await flimbo.ask<Page<Campaign>>('GET', '/api/campaigns')).body.rows.find(
      ({ id }) => id === campaign.id,
    )?.scans
    const sum = (rows: { scans: { scans: number; uniques: number } }[]) =>
      rows.reduce(
        (all, { scans }) => ({ scans: all.scans + scans.scans, uniques: all.uniques + scans.uniques }),
        { scans: 0, uniques: 0 },
      )
    const inPlan = sum(
      (await flimbo.ask<Page<Code>>('GET', `/api/codes?campaignId=${String(campaign.id)}`)).body.rows,
    )
    const inRoutes = sum(
      (await flimbo.ask<Page<Route>>('GET', `/api/routes?campaignId=${String(campaign.id)}`)).body.rows,
    )
    const inRows = (
      await flimbo.ask<Page<Scan>>(
        'GET',
        `/api/scans?campaignId=${String(campaign.id)}&from=2020-01-01&pageSize=500`,
      )
    ).body
    expect(inResults.scans).toBe(16)
    expect(ofCampaign).toEqual(inResults)
    expect(onDesk).toEqual(inResults)
    for (const each of [inPlan, inRoutes])
      expect(each).toEqual({ scans: inResults.scans, uniques: inResults.uniques })
    expect([inRows.total, inRows.rows.filter(({ unique }) => unique).length]).toEqual([
      inResults.scans,
      inResults.uniques,
    ])
  })

  it('are in the file row by row (RFC 4180)', async () => {
    const { headers, body } = await flimbo.ask<string>(
      'GET',
      `/api/scans.csv?campaignId=${String(campaign.id)}&counted=both&from=2020-01-01`,
    )
    expect(headers['content-type']).toContain('text/csv')
    const lines = body.split('\r\n')
    expect(lines[0]).toMatch(/^scan,time_utc,code_id,code,/)
    expect(lines.filter((line) => line !== '').length - 1).toBe(18)
  })
})

describe('live events', () => {
  it('tell of a scan within a second, and of a change', async () => {
    const stop = new AbortController()
    const stream = await fetch(`http://127.0.0.1:${String(flimbo.ports.office)}/api/events`, {
      headers: { cookie: flimbo.cookie },
      signal: stop.signal,
    })
    let heard = ''
    const listening = (async () => {
      const reader = stream.body?.getReader()
      for (let part = await reader?.read(); part?.value; part = await reader?.read())
        heard += Buffer.from(part.value).toString()
    })().catch(() => undefined)
    const hears = async (text: string) => {
      for (let i = 0; i < 100 && !heard.includes(text); i++)
        await new Promise((resolve) => setTimeout(resolve, 50))
      expect(heard).toContain(text)
    }
    await flimbo.scan(`/${poster.slug}`)
    await hears(
      `"codeId":${String(poster.id)},"routeId":${String(poster.routeId)},"campaignId":${String(campaign.id)}`,
    )
    await flimbo.ask('PATCH', `/api/codes/${String(poster.id)}`, { version: 1, note: 'seen' })
    await hears(`"of":"code","id":${String(poster.id)}`)
    stop.abort()
    await listening
  })

  it('have a pulse of the last hour', async () => {
    const { body } = await flimbo.ask<{ minutes: number[]; total: number }>('GET', '/api/pulse')
    expect([body.minutes.length, body.total]).toEqual([60, 10])
  })
})
