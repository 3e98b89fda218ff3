import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import type { Answers, ResultsSummary } from '@flimbo/core/results'
import { keptSince, type Retention, type Scan } from '@flimbo/core/scans'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'

const ZONE = 'Europe/Berlin'
const MONTHS = 6
const DAY_MS = 86_400_000
const now = Date.now()
const since = keptSince(ZONE, now, MONTHS)

let flimbo: Running
let code: Code
let elsewhere: ReturnType<Running['person']>
let theirs: Code

/** Scans of a code, an hour apart, up to a moment. */
const scansUpTo = (moment: number, count: number, code: Code) => {
  storeScans(
    flimbo.file,
    Array.from({ length: count }, (_each, k) => ({
      at: new Date(moment - (k + 1) * 3_600_000).toISOString(),
      code,
      city: k % 3 === 2 ? 'Husum' : 'Norden',
      language: k % 2 ? 'da' : 'de',
      visitor: `v${String((k + 1) % 7)}`,
      apart: k % 10 === 9 ? ('crawler' as const) : null,
    })),
  )
}
const rowsOf = (codeId: number) =>
  flimbo.rows<{ n: number }>('SELECT count(*) AS n FROM scan_rows WHERE codeId = ?', codeId)[0]?.n
const day = (at: number) => new Date(at).toISOString().slice(0, 10)
const results = async () => {
  const days = { from: day(now - 400 * DAY_MS), to: day(now) }
  const { campaignId } = code
  const { body: summary } = await flimbo.ask<ResultsSummary>(
    'GET',
    `/api/results?campaignId=${String(campaignId)}&from=${days.from}&to=${days.to}`,
  )
  const by = ['day', 'hourOfWeek', 'city', 'device', 'language', 'lane', 'piece']
  const questions = by.map((each) => ({ by: [each] }))
  const { body } = await flimbo.ask<Answers>('POST', '/api/figures', { campaignId, ...days, questions })
  return { ...summary, answers: body.answers }
}
const save = (retention: unknown, version: number) =>
  flimbo.ask<{ value: Retention; version: number }>('PATCH', '/api/settings/retention', {
    value: retention,
    version,
  })

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  code = await flimbo.code((await flimbo.campaign()).id, { name: 'Poster' })
  elsewhere = flimbo.person('admin', 'elsewhere')
  const { body: campaign } = await elsewhere<{ id: number }>('POST', '/api/campaigns', {
    name: 'Theirs',
    utmCampaign: 'theirs',
    zone: ZONE,
  })
  const { body } = await elsewhere<Code>('POST', '/api/codes', {
    campaignId: campaign.id,
    name: 'Theirs',
    medium: 'print',
    source: 'poster',
    destination: 'https://elsewhere.example/',
  })
  theirs = body
  scansUpTo(since, 240, code)
  scansUpTo(since, 50, theirs)
  scansUpTo(now, 60, code)
})
afterAll(() => flimbo.close())

describe('how long single scans are kept', () => {
  it.each([{ months: 0 }, { months: 241 }, { months: 'six' }, {}])('is not %j', async (retention) => {
    expect((await save(retention, 0)).status).toBe(422)
  })

  it('is for whoever decides for the workspace to say', async () => {
    for (const role of ['viewer', 'editor'] as const)
      expect((await flimbo.person(role)('PATCH', '/api/settings/retention', {})).status).toBe(403)
  })

  it('says beforehand what would be folded', async () => {
    const { body } = await flimbo.ask('GET', `/api/folded-scans?months=${String(MONTHS)}`)
    expect(body).toEqual({ folded: null, next: { before: since, scans: 216 } })
  })

  it('leaves every figure as it was, and the rows of others', async () => {
    const before = await results()
    expect(before.rowsSince).toBeNull()
    expect((await save({ months: MONTHS }, 0)).status).toBe(200)
    const [job] = (
      await flimbo.ask<{ rows: { id: number; kind: string; title: string }[] }>('GET', '/api/jobs')
    ).body.rows
    expect(job).toMatchObject({ kind: 'folding' })
    expect(await flimbo.ended(job?.id ?? 0)).toMatchObject({
      state: 'done',
      sentence: expect.stringMatching(/^216 scans before 1 \w+ \d{4} are sums now/) as string,
    })
    const { rowsSince, ...after } = await results()
    expect(rowsSince).toBe(since)
    expect({ ...after, rowsSince: null }).toEqual(before)
    expect(rowsOf(code.id)).toBe(60)
    expect(rowsOf(theirs.id)).toBe(50)
    const { body } = await flimbo.ask('GET', '/api/folded-scans')
    expect(body).toEqual({ folded: { before: since, scans: 216 }, next: null })
  }, 60_000)

  it('leaves the rows that are kept, in lists and files', async () => {
    const query = `campaignId=${String(code.campaignId)}&counted=both`
    const { body } = await flimbo.ask<{ total: number; rows: Scan[] }>('GET', `/api/scans?${query}`)
    expect(body.total).toBe(60)
    expect(body.rows.every(({ at }) => at >= since)).toBe(true)
    const csv = await flimbo.ask('GET', `/api/scans.csv?${query}`)
    expect(String(csv.body).trim().split('\r\n')).toHaveLength(61)
  })
})
