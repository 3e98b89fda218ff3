import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import { DIMENSION_NAMES, type Dimension } from '@flimbo/core/dimensions'
import {
  DEFAULT_VIEW,
  type Answer,
  type Answers,
  type ResultsSummary,
  type SavedQuestion,
} from '@flimbo/core/results'
import { NO_RULES, openLife, type Route } from '@flimbo/core/routing'
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

const summary = async (query: string) =>
  (await flimbo.ask<ResultsSummary>('GET', `/api/results?${query}`)).body
/** What a question comes to, of some days. */
async function answer(of: object, from: string, to: string, ...by: Dimension[]): Promise<Answer> {
  const { body } = await flimbo.ask<Answers>('POST', '/api/figures', { ...of, from, to, questions: [{ by }] })
  if (!body.answers[0]) throw new Error(JSON.stringify(body))
  return body.answers[0]
}
const scansOf = ({ rows }: Answer) => rows.flatMap(({ keys, scans }) => (scans > 0 ? [[keys[0], scans]] : []))

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
  it('has 23 hours on the day one is lost, and the scans in their local hours', async () => {
    const found = await answer({ campaignId: campaign.id }, '2026-03-29', '2026-03-29', 'hour')
    expect(found.rows).toHaveLength(23)
    expect(scansOf(found)).toEqual([
      ['2026-03-29T01:00+01:00', 1],
      ['2026-03-29T03:00+02:00', 1],
      ['2026-03-29T23:00+02:00', 1],
    ])
    expect(found.total).toMatchObject({ scans: 3, uniques: 3 })
  })

  it('has 25 on the day one comes twice', async () => {
    const found = await answer({ campaignId: campaign.id }, '2026-10-25', '2026-10-25', 'hour')
    expect(found.rows).toHaveLength(25)
    expect(scansOf(found)).toEqual([
      ['2026-10-25T02:00+02:00', 1],
      ['2026-10-25T02:00+01:00', 2],
    ])
  })

  it('counts a visitor once a day at each code', async () => {
    const { total, rows, names } = await answer(
      { routeId: poster.routeId },
      '2026-10-25',
      '2026-10-25',
      'piece',
    )
    expect(total).toMatchObject({ scans: 3, uniques: 2 })
    expect(rows.map(({ keys: [key = ''], scans, uniques }) => [names.piece?.[key], scans, uniques])).toEqual([
      ['Poster', 2, 1],
      ['Leaflet', 1, 1],
    ])
  })

  it('parts the scans by anything, and each part sums to the whole', async () => {
    const by = (...dimensions: Dimension[]) =>
      answer({ campaignId: campaign.id }, '2026-01-01', '2026-12-31', ...dimensions)
    expect(scansOf(await by('city'))).toEqual([
      ['', 4],
      ['DE\tCoast\tBremen', 2],
      ['DE\tCoast\tEmden', 1],
    ])
    expect(scansOf(await by('language'))).toEqual([
      ['de', 4],
      ['nl', 2],
      ['', 1],
    ])
    for (const dimension of DIMENSION_NAMES) {
      const { rows } = await by(dimension)
      const sum = (of: 'scans' | 'uniques') => rows.reduce((all, row) => all + row[of], 0)
      expect([dimension, sum('scans'), sum('uniques')]).toEqual([dimension, 7, 6])
    }
  })

  it('names what was kept apart, and counts it nowhere', async () => {
    const { apart, ever } = await summary(`codeId=${String(leaflet.id)}&from=2026-10-01&to=2026-10-31`)
    expect(apart).toEqual(
      expect.arrayContaining([
        { kind: 'crawler', requests: 1 },
        { kind: 'test', requests: 1 },
      ]),
    )
    expect(ever.scans).toBe(2)
  })

  it('marks what may explain the figures: other destinations, lanes that were published, notes on days', async () => {
    const today = new Date().toISOString().slice(0, 10)
    const route = `/api/routes/${String(poster.routeId)}`
    await flimbo.ask('PATCH', route, { version: 1, note: 'no change of where it leads' })
    await flimbo.ask('PATCH', route, { version: 2, destination: 'https://saltmarsh.example/winter' })
    const thisMonth = `from=${today.slice(0, 8)}01&to=2099-01-01`
    const { marks } = await summary(`codeId=${String(leaflet.id)}&${thisMonth}`)
    const by = 'Anna Petersen'
    expect(marks).toMatchObject([
      { kind: 'destination', by, name: poster.routeName, detail: 'https://saltmarsh.example/winter' },
    ])
    await flimbo.live(poster.routeId, { ...NO_RULES, life: { ...openLife('Europe/Berlin'), limit: 500 } })
    const note = async (campaignId: number | null, text: string) =>
      (await flimbo.ask<{ id: number }>('POST', '/api/day-notes', { campaignId, day: today, text })).body.id
    const ours = await note(campaign.id, 'Storm, no boats')
    await note(null, 'School holidays')
    await note(other.campaignId, 'Not ours')
    const all = async (query: string) =>
      (await summary(`${query}&${thisMonth}`)).marks.map(({ kind, name }) => `${kind} ${name}`).sort()
    expect(await all(`campaignId=${String(campaign.id)}`)).toEqual([
      `destination ${poster.routeName}`,
      `lanes ${poster.routeName}`,
      'note School holidays',
      'note Storm, no boats',
    ])
    expect(await all('')).toContain('note Not ours')
    await flimbo.ask('DELETE', `/api/day-notes/${String(ours)}`)
    expect(await all(`campaignId=${String(campaign.id)}`)).not.toContain('note Storm, no boats')
    expect(
      (await flimbo.refused('POST', '/api/day-notes', { campaignId: null, day: '9999-01-01', text: 'x' }))
        .status,
    ).toBe(422)
  })

  it('keeps questions under their names, for everybody, with those that are no questions any more left out', async () => {
    const value = {
      campaignId: campaign.id,
      view: { ...DEFAULT_VIEW, by: ['city'], filters: { channel: [''] } },
    }
    await flimbo.ask('POST', '/api/questions', { name: 'Cities', value })
    await flimbo.ask('POST', '/api/questions', { name: 'Cities', value: { ...value, codeId: poster.id } })
    const saved = async () => (await flimbo.ask<Page<SavedQuestion>>('GET', '/api/questions')).body.rows
    const [first, ...others] = await saved()
    expect([first, others]).toMatchObject([
      { name: 'Cities', value: { codeId: poster.id, view: value.view } },
      [],
    ])
    const database = new Sqlite(flimbo.file)
    database.exec(`UPDATE questions SET value = '{"view":{"what":"shoes"}}'`)
    database.close()
    expect(await saved()).toEqual([])
    for (const [view, sentence] of [
      [{ ...DEFAULT_VIEW, by: ['shoe'] }, ''],
      [{ ...DEFAULT_VIEW, period: { from: '9999-01-01', to: '9999-01-01' } }, ''],
    ] as const) {
      const { status, detail } = await flimbo.refused('POST', '/api/questions', {
        name: 'x',
        value: { view },
      })
      expect([status, detail]).toEqual([422, expect.stringContaining(sentence)])
    }
    expect(
      (await flimbo.refused('POST', '/api/questions', { name: 'x', value: { ...value, campaignId: 99 } }))
        .status,
    ).toBe(404)
  })

  it.each([
    ['from=2026-02-02&to=2026-02-01', 'before the first'],
    ['from=1.2.2026&to=2026-02-01', '2026-07-01'],
    ['campaignId=1&codeId=1&from=2026-02-01&to=2026-02-01', 'Name one'],
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
    const inResults = (await summary(`campaignId=${String(campaign.id)}&from=2020-01-01&to=2099-12-31`)).ever
    const inFigures = (await answer({ campaignId: campaign.id }, '2020-01-01', '2099-12-31')).total
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
    expect([inFigures.scans, inFigures.uniques]).toEqual([inResults.scans, inResults.uniques])
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

describe('figures against another campaign', () => {
  const starts = (id: number, version: number, startsOn: string) =>
    flimbo.ask('PATCH', `/api/campaigns/${String(id)}`, { version, startsOn })
  const ask = async (more: object) =>
    (
      await flimbo.ask<Answers>('POST', '/api/figures', {
        ...{ campaignId: campaign.id, from: '2026-03-29', to: '2026-03-30', questions: [{ by: ['day'] }] },
        ...more,
      })
    ).body
  it('are those of its pieces on the same days, or as long after its own start, day beside day', async () => {
    const otherCampaignId = other.campaignId
    const same = await ask({
      ...{ against: 'campaign', otherCampaignId, from: '2026-10-25', to: '2026-10-25' },
    })
    expect(same.answers[0]?.total).toMatchObject({ scans: 3, before: { scans: 1 } })
    await starts(campaign.id, campaign.version, '2026-03-28')
    await starts(otherCampaignId, 1, '2026-10-24')
    const { before, answers } = await ask({ against: 'campaignFromStart', otherCampaignId })
    expect(before).toEqual({ from: '2026-10-25', to: '2026-10-26', campaign: 'Other' })
    expect(answers[0]?.rows.map(({ keys, scans, before: then }) => [keys[0], scans, then?.scans])).toEqual([
      ['2026-03-29', 3, 1],
      ['2026-03-30', 1, 0],
    ])
  })
  it('need to know which campaign, of one that is ours', async () => {
    const body = { campaignId: campaign.id, from: '2026-03-29', to: '2026-03-30', questions: [{}] }
    const refusal = await flimbo.refused('POST', '/api/figures', { ...body, against: 'campaign' })
    expect(refusal.fields?.[0]?.path).toBe('otherCampaignId')
    const theirs = { ...body, against: 'campaign', otherCampaignId: 999 }
    expect((await flimbo.refused('POST', '/api/figures', theirs)).status).toBe(404)
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

  it('are seen second by second, of all or of one piece', async () => {
    interface LastHour {
      until: number
      seconds: [number, number][]
      total: number
    }
    const lastHour = async (query = '') => (await flimbo.ask<LastHour>('GET', `/api/last-hour${query}`)).body
    const { total: before } = await lastHour(`?codeId=${String(leaflet.id)}`)
    await flimbo.scan(`/${leaflet.slug}`)
    const { until, seconds, total } = await lastHour(`?codeId=${String(leaflet.id)}`)
    expect(total).toBe(before + 1)
    expect(Math.abs(until - Date.now())).toBeLessThan(3000)
    const [ago, scans] = seconds.at(-1) ?? []
    expect(ago).toBeLessThan(4)
    expect(scans).toBeGreaterThan(0)
    expect(seconds.reduce((sum, [, n]) => sum + n, 0)).toBe(total)
    expect((await lastHour()).total).toBeGreaterThan(total)
  })

  it('have a pulse of the last hour', async () => {
    const { body } = await flimbo.ask<{ minutes: number[]; total: number }>('GET', '/api/pulse')
    expect([body.minutes.length, body.total]).toEqual([60, 11])
  })
})
