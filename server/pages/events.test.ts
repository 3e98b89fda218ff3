import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { newPart, type Page, type PageTally, type PieceOnPages } from '@flimbo/core/pages'
import { deviceOf, keptSince, NOWHERE, type Retention } from '@flimbo/core/scans'
import { eventPacker, pack, proveEvents, scanInserter, type Packed } from '../scans/queries.ts'
import { PHONE, runningFlimbo, type Running } from '../tests/running.ts'

const ZONE = 'Europe/Berlin'
const MONTHS = 3
const now = Date.now()
const HOUR_MS = 3_600_000

let flimbo: Running
let campaignId: number
let page: Page
let other: Page
let code: Code
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  page = await flimbo.page(campaignId, 'Stop 1', [newPart('divider', 'd')])
  other = await flimbo.page(campaignId, 'Stop 2', [newPart('divider', 'd')])
  code = await flimbo.codeTo(campaignId, page.id, 'stop')
})
afterAll(() => flimbo.close())

/** Scans that were shown a page, an hour apart, up to a moment. */
function opened(moment: number, count: number, pageId: number, apart: 'crawler' | null = null): void {
  const database = new Sqlite(flimbo.file)
  const packed: Packed[] = []
  for (let i = 1; i <= count; i++) {
    const at = moment - i * HOUR_MS
    pack(
      {
        at,
        workspaceId: 1,
        campaignId,
        day: new Date(at).toISOString().slice(0, 10),
        codeId: code.id,
        routeId: code.routeId,
        revisionId: 1,
        outcome: 'page',
        exit: 'page',
        variant: '',
        apart,
        place: NOWHERE,
        device: deviceOf(PHONE),
        language: 'de',
        referrer: '',
        visitor: `v${String(i)}`,
        pageId,
      },
      packed,
    )
  }
  scanInserter(database)(packed)
  database.close()
}
const day = (at: number) => new Date(at).toISOString().slice(0, 10)
const PERIOD = `from=${day(now - 400 * 24 * HOUR_MS)}&to=${day(now)}`
const tallies = async ({ id }: Page, period = PERIOD) =>
  (await flimbo.ask<{ tallies: PageTally[] }>('GET', `/api/pages/${String(id)}/results?${period}`)).body
    .tallies
const pieces = async () =>
  (
    await flimbo.ask<{ rows: PieceOnPages[] }>(
      'GET',
      `/api/page-events?campaignId=${String(campaignId)}&${PERIOD}`,
    )
  ).body.rows
const eventRows = () => flimbo.rows<{ n: number }>('SELECT count(*) AS n FROM event_rows')[0]?.n ?? 0
const waitFor = async (isTrue: () => boolean) => {
  while (!isTrue()) await new Promise((resolve) => setTimeout(resolve, 50))
}

describe('what happened on pages', () => {
  it('is counted by page, part and piece, people alone, in days of the campaign’s zone', async () => {
    opened(now, 30, page.id)
    opened(now, 5, other.id)
    opened(now, 7, page.id, 'crawler')
    expect(await tallies(page)).toEqual([{ kind: 'opened', part: '', item: '', scans: 30 }])
    expect(await tallies(other)).toEqual([{ kind: 'opened', part: '', item: '', scans: 5 }])
    expect(await pieces()).toEqual([
      { codeId: code.id, name: code.name, opened: 35, followed: 0, taken: 0, played: 0, finished: 0 },
    ])
    expect(await tallies(page, 'from=2020-01-01&to=2020-01-02')).toEqual([])
  })

  it('is asked for days alone that there are', async () => {
    const path = `/api/pages/${String(page.id)}/results`
    for (const period of ['from=9999-12-31', 'from=2026-13-45', 'from=2026-02-02&to=2026-02-01'])
      expect((await flimbo.refused('GET', `${path}?${period}`)).status).toBe(422)
  })

  it('stays as it was counted when its rows are folded with the scans it belongs to', async () => {
    const since = keptSince(ZONE, now, MONTHS)
    opened(since - 24 * HOUR_MS, 40, page.id)
    opened(now, 1, page.id)
    const [before, rows] = [await tallies(page), eventRows()]
    const keep: Retention = { months: MONTHS }
    await flimbo.ask('PATCH', '/api/settings/retention', { version: 0, value: keep })
    await waitFor(() => eventRows() === rows - 40)
    expect(await tallies(page)).toEqual(before)
    expect((await pieces())[0]?.opened).toBe(35 + 41)
  }, 60_000)

  it('agrees with its rows in segments, whatever happened', () => {
    const database = new Sqlite(flimbo.file)
    const scanId = database.prepare('SELECT max(id) FROM scan_rows').pluck().get() as number
    const insertWay = database.prepare(
      `INSERT OR IGNORE INTO event_ways (routeId, revisionId, pageId, kind, part, item, apart) VALUES (1, 1, ?, ?, ?, ?, ?)`,
    )
    const insert = database.prepare(
      `INSERT INTO event_rows (at, codeId, scanId, wayId)
       SELECT ?, ?, ?, id FROM event_ways WHERE pageId = ? AND kind = ? AND part = ? AND item = ? AND apart = ? LIMIT 1`,
    )
    const event = fc.record({
      pageId: fc.constantFrom(1, 2, 3),
      kind: fc.constantFrom('opened', 'link', 'played'),
      part: fc.constantFrom('', 'a', 'b'),
      item: fc.constantFrom('', '25', '100'),
      apart: fc.constantFrom('', 'test'),
      hours: fc.integer({ min: 0, max: 1000 }),
    })
    const [first] = fc.sample(fc.array(event, { minLength: 40, maxLength: 40, size: 'max' }), 1)
    database.transaction(() => {
      for (let i = 0; i < 1000; i++)
        for (const { pageId, kind, part, item, apart, hours } of first ?? []) {
          insertWay.run(pageId, kind, part, item, apart)
          insert.run(
            now - hours * HOUR_MS,
            code.id,
            scanId + 1 + i * 40 + Math.floor(hours / 26),
            pageId,
            kind,
            part,
            item,
            apart,
          )
        }
    })
    database.close()
    const reading = new Sqlite(flimbo.file, { readonly: true })
    const packer = eventPacker(reading)
    while (packer.step().hasMore);
    packer.close()
    expect(proveEvents(reading).wrong).toEqual([])
    reading.close()
  })
})
