import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import type { Answers } from '@flimbo/core/results'
import { NO_RULES, type Lane } from '@flimbo/core/routing'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(() => flimbo.close())

const address = (to: string) => ({ kind: 'address' as const, address: `https://saltmarsh.example/${to}` })
const lane = (id: string, outcome: Lane['outcome'], resting = false): Lane => ({
  id,
  name: id,
  condition: EVERY_SCAN,
  outcome,
  resting,
})
const leadsBy = async (by: string[]) => {
  const { body } = await flimbo.ask<Answers>('POST', '/api/figures', {
    campaignId,
    from: '2020-01-01',
    to: '2099-12-31',
    questions: [{ by }],
  })
  const { rows = [], leads = [] } = body.answers[0] ?? {}
  return new Map(rows.map(({ keys }, i) => [keys[0] ?? '', leads[i]]))
}

describe('where lanes lead', () => {
  it('is their address, page or variant by now, and the own destination of a piece that has one', async () => {
    const page = await flimbo.page(campaignId, 'Winter boats', [])
    const plain = await flimbo.code(campaignId, { name: 'Poster', slug: 'plain' })
    const split = await flimbo.code(campaignId, { name: 'Card', slug: 'split' })
    const paged = await flimbo.codeTo(campaignId, page.id, 'paged')
    const variants = [
      { id: 'a', name: 'Long', weight: 1, leads: address('long'), ended: false },
      { id: 'b', name: 'Short', weight: 1, leads: address('short'), ended: true },
    ]
    await flimbo.live(split.routeId, {
      ...NO_RULES,
      lanes: [lane('halves', { kind: 'split', variants })],
    })
    const own = await flimbo.code(campaignId, {
      name: 'Bus back',
      slug: 'own',
      routeId: plain.routeId,
      otherwise: 'https://saltmarsh.example/bus',
    })
    for (const slug of ['plain', 'split', 'paged', 'own']) await flimbo.scan(`/${slug}`)
    const lanes = await leadsBy(['piece', 'lane'])
    expect(lanes.get(String(plain.id))).toBe('saltmarsh.example/timetable')
    expect(lanes.get(String(own.id))).toBe('saltmarsh.example/bus')
    expect(lanes.get(String(paged.id))).toBe('the page “Winter boats”')
    expect(lanes.get(String(split.id))).toBe('a split test')
    expect((await leadsBy(['piece', 'variant'])).get(String(split.id))).toBe('saltmarsh.example/long')
    // By now: an edit moves where the lane leads, and what was scanned before with it.
    await flimbo.live(split.routeId, { ...NO_RULES, lanes: [lane('halves', address('winter'))] })
    expect((await leadsBy(['piece', 'lane'])).get(String(split.id))).toBe('saltmarsh.example/winter')
    await flimbo.live(split.routeId, { ...NO_RULES, lanes: [] })
    expect((await leadsBy(['piece', 'lane'])).get(String(split.id))).toBe('a lane that is gone')
    expect(new Set((await leadsBy(['piece', 'country'])).values())).toEqual(new Set([undefined]))
  })
})
