import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newQuestion, type Answers, type Question } from '@flimbo/core/forms'
import type { LeadNumbers, LeadSummary } from '@flimbo/core/leads'
import { newPart, type Page } from '@flimbo/core/pages'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let page: Page
let poster: { id: number; routeId: number }
let ticket: { id: number; routeId: number }
const CHOICES = ['lark', 'tern'].map((key) => ({ key, label: { en: key } }))
const QUESTIONS: Question[] = [
  { ...newQuestion('some', 'island'), label: { en: 'Island' }, choices: CHOICES, hasOther: true },
  { ...newQuestion('rating', 'how'), label: { en: 'How was it?' } },
  { ...newQuestion('number', 'price'), label: { en: 'Price' }, decimals: 2 },
  { ...newQuestion('yesno', 'again'), label: { en: 'Again?' } },
  { ...newQuestion('ranking', 'best'), label: { en: 'Best' }, choices: CHOICES },
  { ...newQuestion('date', 'day'), label: { en: 'Day' } },
]
const ANSWERS: Answers[] = [
  {
    island: { chosen: ['lark', 'tern'] },
    how: 5,
    price: 1.5,
    again: true,
    best: { chosen: ['tern', 'lark'] },
  },
  { island: { chosen: ['lark'], other: 'Skerry' }, how: 4, price: 20, again: false, day: '2026-07-03' },
  { how: 5, price: 99.9, again: true, best: { chosen: ['lark', 'tern'] } },
]

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  page = await flimbo.page(campaignId, 'Survey', [{ ...newPart('form', 'f'), questions: QUESTIONS }])
  poster = await flimbo.codeTo(campaignId, page.id, 'poster')
  ticket = await flimbo.codeTo(campaignId, page.id, 'ticket')
  for (const [i, answers] of ANSWERS.entries())
    storeLead(flimbo.file, {
      campaignId,
      pageId: page.id,
      pageRevisionId: page.revisionId,
      codeId: i === 2 ? ticket.id : poster.id,
      routeId: poster.routeId,
      answers,
      country: 'DE',
      region: 'Bremen',
      city: 'Bremen',
    })
  for (let i = 0; i < 8; i++) await flimbo.scan('/poster')
})
afterAll(() => flimbo.close())

const numbers = async (more = '') =>
  (
    await flimbo.ask<LeadNumbers>(
      'GET',
      `/api/lead-numbers?campaignId=${String(campaignId)}&pageId=${String(page.id)}&part=f${more}`,
    )
  ).body

describe('numbers by question', () => {
  it('have, behind each bar, just the leads that it counts', async () => {
    const { total, questions } = await numbers()
    expect([total, questions.map(({ question }) => question)]).toEqual([3, QUESTIONS.map(({ id }) => id)])
    let bars = 0
    for (const numbersOf of questions)
      for (const { key, count } of 'rows' in numbersOf ? numbersOf.rows : []) {
        const query = `campaignId=${String(campaignId)}&question=${numbersOf.question}&answer=${encodeURIComponent(key)}`
        const found = await flimbo.ask<{ total: number }>('GET', `/api/leads?${query}`)
        expect([numbersOf.question, key, found.body.total]).toEqual([numbersOf.question, key, count])
        bars++
      }
    expect(bars).toBeGreaterThan(20)
  })

  it('are told apart by piece and month, and narrowed as leads are', async () => {
    const { groups } = await numbers('&by=piece')
    expect(groups.map(({ key, total }) => [key, total])).toEqual([
      [String(poster.id), 2],
      [String(ticket.id), 1],
    ])
    expect((await numbers('&by=month')).groups).toHaveLength(1)
    expect((await numbers(`&codeId=${String(ticket.id)}`)).total).toBe(1)
    expect((await numbers('&from=2020-01-01&to=2020-01-02')).total).toBe(0)
    expect((await flimbo.refused('GET', `/api/lead-numbers?campaignId=1&pageId=1&part=f'--`)).status).toBe(
      422,
    )
  })

  it('find nothing, and break nothing, by answers that nobody gave', async () => {
    for (const answer of ["' OR 1=1 --", '%', '..', '1e999..2', '-', '9'.repeat(200)]) {
      const found = await flimbo.ask<{ rows: LeadSummary[] }>(
        'GET',
        `/api/leads?campaignId=${String(campaignId)}&question=island&answer=${encodeURIComponent(answer)}`,
      )
      expect([answer, found.status, found.body.rows]).toEqual([answer, 200, []])
    }
  })
})
