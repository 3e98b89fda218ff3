import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { Answers } from '@flimbo/core/results'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'

let flimbo: Running
let summer: Campaign
let poster: Code
let card: Code
let elsewhere: Code
const DAYS = { from: '2026-07-01', to: '2026-07-03' }

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  summer = await flimbo.campaign()
  const spot = { latitude: 53.5, longitude: 8 }
  poster = await flimbo.code(summer.id, { name: 'Poster', medium: 'poster', cost: 120, ...spot })
  card = await flimbo.code(summer.id, { name: 'Card', medium: 'card', routeId: poster.routeId })
  elsewhere = await flimbo.code((await flimbo.campaign('Other')).id, {
    name: 'Elsewhere',
    medium: 'poster',
    cost: 30,
  })
  storeScans(flimbo.file, [
    { at: '2026-06-30T09:00:00Z', code: poster },
    { at: '2026-07-01T09:00:00Z', code: poster, city: 'Bremen' },
    { at: '2026-07-01T10:00:00Z', code: poster, city: 'Emden', language: 'nl' },
    { at: '2026-07-03T21:59:00Z', code: poster, city: 'Bremen' },
    { at: '2026-07-03T22:00:00Z', code: poster },
    { at: '2026-07-02T09:00:00Z', code: elsewhere, city: 'Bremen' },
    { at: '2026-07-02T09:00:00Z', code: elsewhere, apart: 'crawler' },
  ])
  storeLead(flimbo.file, {
    at: Date.parse('2026-07-02T09:00:00Z'),
    codeId: poster.id,
    scanId: 2,
    region: 'Coast',
    city: 'Bremen',
  })
  storeLead(flimbo.file, { at: Date.parse('2026-07-02T10:00:00Z'), codeId: poster.id, held: 'trap' })
})
afterAll(() => flimbo.close())

const ask = async (question: object, of: object = {}) => {
  const { body } = await flimbo.ask<Answers>('POST', '/api/figures', {
    ...DAYS,
    ...of,
    questions: [question],
  })
  const [answer] = body.answers
  if (!answer) throw new Error(`No answer: ${JSON.stringify(body)}`)
  return { ...body, ...answer }
}

describe('figures', () => {
  it('are those of all campaigns, of one, of a route or of a piece', async () => {
    const total = async (of: object) => (await ask({}, of)).total
    expect(await total({})).toMatchObject({ scans: 4, uniques: 4, leads: 1, cost: 150, before: null })
    expect(await total({ clientId: 1 })).toMatchObject({ scans: 4 })
    expect(await total({ campaignId: summer.id })).toMatchObject({ scans: 3, leads: 1, cost: 120 })
    expect(await total({ routeId: poster.routeId })).toMatchObject({ scans: 3 })
    expect(await total({ codeId: card.id })).toMatchObject({
      scans: 0,
      uniques: 0,
      leads: 0,
      cost: null,
      before: null,
    })
  })

  it('show every day of the campaign’s zone, each with the day it is held against', async () => {
    const { rows, before } = await ask({ by: ['day'] }, { campaignId: summer.id, against: 'before' })
    expect(before).toEqual({ from: '2026-06-28', to: '2026-06-30', campaign: null })
    expect(rows.map(({ keys, scans, leads, before: then }) => [keys[0], scans, leads, then?.scans])).toEqual([
      ['2026-07-01', 2, 0, 0],
      ['2026-07-02', 0, 1, 0],
      ['2026-07-03', 1, 0, 1],
    ])
  })

  it('have names and cost by piece, those without a scan too, and no cost by what a scan knows', async () => {
    const { rows, names } = await ask({ by: ['piece'], what: 'costPerLead' }, { campaignId: summer.id })
    expect(rows.map(({ keys: [key = ''], cost, leads }) => [names.piece?.[key], cost, leads])).toEqual([
      ['Poster', 120, 1],
      ['Card', null, 0],
    ])
    const { rows: media } = await ask({ by: ['medium', 'campaign'] })
    expect(media.map(({ keys, cost, scans }) => [keys[0], keys[1], cost, scans])).toEqual([
      ['poster', String(summer.id), 120, 3],
      ['poster', String(elsewhere.campaignId), 30, 1],
      ['card', String(summer.id), null, 0],
    ])
    const cities = await ask({ by: ['city'] })
    expect(cities.rows.map(({ keys, cost, scans, leads }) => [keys[0], cost, scans, leads])).toEqual([
      ['DE\tCoast\tBremen', null, 3, 1],
      ['DE\tCoast\tEmden', null, 1, 0],
    ])
    expect(cities.spots['DE\tCoast\tEmden']).toEqual([53.5, 8.1])
  })

  it('are narrowed by anything, a filter of time in the days before too', async () => {
    const filters = { city: ['DE\tCoast\tBremen'], medium: ['poster'] }
    expect((await ask({ filters })).total).toMatchObject({ scans: 3, leads: 1, cost: null })
    expect((await ask({ filters: { medium: ['poster'] } })).total.cost).toBe(150)
    expect((await ask({ filters: { distance: ['5-20'], language: ['de'] } })).total.scans).toBe(2)
    const { total } = await ask({ filters: { day: ['2026-07-03'] } }, { against: 'before' })
    expect([total.scans, total.before?.scans]).toEqual([1, 1])
  })

  it.each([
    [{ from: '2026-07-02', to: '2026-07-01' }, 'before the first'],
    [{ from: '9999-01-01', to: '9999-12-31' }, '1970 to 2200'],
    [{ campaignId: 1, codeId: 1 }, 'Name one'],
    [{ questions: [] }, ''],
    [{ questions: [{ by: ['day', 'day'] }] }, 'two different'],
    [{ questions: [{ by: ['shoe'] }] }, ''],
    [{ questions: Array.from({ length: 25 }, () => ({})) }, ''],
    [{ from: '1970-01-01', to: '2200-12-31', questions: [{ by: ['day', 'hour'] }] }, 'larger unit'],
    [{ questions: [{ filters: { city: ['x'.repeat(401)] } }] }, ''],
  ])('refuse %j with a sentence', async (given, sentence) => {
    const { status, detail } = await flimbo.refused('POST', '/api/figures', {
      ...DAYS,
      questions: [{}],
      ...given,
    })
    expect([status, detail]).toEqual([422, expect.stringContaining(sentence)])
  })

  it('are nobody else’s', async () => {
    for (const of of [{ campaignId: 99 }, { clientId: 99 }, { codeId: 99 }, { routeId: 99 }])
      expect((await flimbo.refused('POST', '/api/figures', { ...DAYS, ...of, questions: [{}] })).status).toBe(
        404,
      )
  })
})
