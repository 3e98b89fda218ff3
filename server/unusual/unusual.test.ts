import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { ExpectedDay, Unusual } from '@flimbo/core/unusual'
import { openDatabase, type Database } from '../database/index.ts'
import { startReader, type Reader } from '../reader/index.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'
import { lookForUnusual } from './index.ts'

const DAY_MS = 86_400_000
let flimbo: Running
let database: Database
let reviewer: Reader
let campaign: Campaign
let poster: Code
let card: Code
/** Noon of today in the campaign's zone, or a little before or after: in each the same day. */
const noon = Math.floor(Date.now() / DAY_MS) * DAY_MS + 10 * 3_600_000
const dayOf = (back: number) => new Date(noon - back * DAY_MS).toISOString().slice(0, 10)

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaign = await flimbo.campaign()
  poster = await flimbo.code(campaign.id, { name: 'Poster' })
  card = await flimbo.code(campaign.id, { name: 'Card' })
  database = await openDatabase(flimbo.file)
  reviewer = startReader(flimbo.file)
  const days = Array.from({ length: 60 }, (_, i) => i + 1)
  const scans = (back: number, n: number, code: Code, city = 'Bremen', apart?: 'crawler') =>
    Array.from({ length: n }, (_, i) => ({
      at: new Date(noon - back * DAY_MS + i * 1000).toISOString(),
      code,
      city,
      ...(apart ? { apart } : {}),
    }))
  storeScans(flimbo.file, [
    ...days.flatMap((back) => scans(back, 20, poster)),
    // The card hangs until four days ago.
    ...days.filter((back) => back > 4).flatMap((back) => scans(back, 10, card)),
    // Yesterday many more came, and programs today.
    ...scans(1, 200, poster),
    ...scans(0, 90, poster, 'Bremen', 'crawler'),
  ])
})
afterAll(async () => {
  await reviewer.close()
  await database.close()
  await flimbo.close()
})

const look = (now = noon) => lookForUnusual({ database, reviewer, live: { tell: () => undefined } }, now)
const list = async () => (await flimbo.ask<{ rows: Unusual[] }>('GET', '/api/unusual')).body.rows

describe('what is unusual', () => {
  it('is found once, said with its reason, and mailed to who watches for it', async () => {
    const watch = { campaignId: campaign.id, what: 'unusual', every: 'once', n: null }
    expect((await flimbo.ask('POST', '/api/watches', watch)).status).toBe(201)
    await look()
    await look(noon + 60_000)
    const rows = await list()
    expect(rows.map(({ kind, name, day }) => [kind, name, day]).sort()).toEqual([
      ['above', 'Summer timetable', dayOf(1)],
      ['programs', 'Summer timetable', dayOf(0)],
      ['stopped', 'Card', dayOf(5)],
    ])
    expect(rows.find(({ kind }) => kind === 'above')?.sentence).toMatch(
      /^had 220 scans on .* about (2|3)\d expected/,
    )
    expect(rows.find(({ kind }) => kind === 'stopped')?.sentence).toContain(
      'about 40 would have been expected',
    )
    expect(flimbo.rows("SELECT 1 FROM mails WHERE kind = 'notice'")).toHaveLength(1)
  })

  it('leaves the desk for everybody, and does not come back', async () => {
    const ids = (await list()).map(({ id }) => id)
    const elsewhere = flimbo.person('admin', 'elsewhere')
    expect((await elsewhere('POST', '/api/unusual/seen', { ids })).status).toBe(204)
    expect(await list()).toHaveLength(ids.length)
    await flimbo.ask('POST', '/api/unusual/seen', { ids })
    await look(noon + 120_000)
    expect(await list()).toEqual([])
  })

  it('is not watched for on a single piece', async () => {
    const watch = { codeId: poster.id, what: 'unusual', every: 'once', n: null }
    expect((await flimbo.refused('POST', '/api/watches', watch)).fields?.[0]?.path).toBe('what')
  })
})

describe('what is expected', () => {
  const expected = async (from: string, to: string) =>
    (
      await flimbo.ask<{ rows: ExpectedDay[] }>(
        'GET',
        `/api/expected?campaignId=${String(campaign.id)}&from=${from}&to=${to}`,
      )
    ).body.rows
  it('is said of days that enough is known of', async () => {
    const rows = await expected(dayOf(70), dayOf(0))
    expect(rows.at(-1)?.day).toBe(dayOf(0))
    expect(rows.find(({ day }) => day === dayOf(6))?.expected).toBeCloseTo(30, 3)
    expect(rows.some(({ day }) => day === dayOf(50))).toBe(false)
  })
  it('is nothing of days to come, however far', async () => {
    expect(await expected('2199-01-01', '2199-12-31')).toEqual([])
    const ages = '/api/expected?from=1970-01-01&to=2199-12-31'
    expect((await flimbo.refused('GET', ages)).fields?.[0]?.path).toBe('from')
    expect((await flimbo.refused('GET', '/api/expected?from=9999-01-01&to=9999-12-31')).status).toBe(422)
  })
})
