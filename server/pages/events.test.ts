import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import {
  EVENT_COUNTS,
  newPart,
  type Page,
  type PageEventRow,
  type PageTally,
  type PieceOnPages,
} from '@flimbo/core/pages'
import type { Job } from '@flimbo/core/jobs'
import { readTable } from '@flimbo/core/plan'
import { dayIn } from '@flimbo/core/time'
import { deviceOf, keptSince, NOWHERE, type Retention } from '@flimbo/core/scans'
import { pack, proveEvents, scanInserter, type Packed } from '../scans/queries.ts'
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
const PERIOD = `from=${day(now - 400 * 24 * HOUR_MS)}&to=${dayIn(ZONE, now)}`
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
interface FoundRows {
  readonly rows: PageEventRow[]
  readonly total: number
}
const rowsBehind = async (query: string) =>
  (await flimbo.ask<FoundRows>('GET', `/api/page-event-rows?${query}&${PERIOD}`)).body
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
    const { rows, total } = await rowsBehind(`pageId=${String(other.id)}`)
    expect(total).toBe(5)
    expect(rows[0]).toMatchObject({ partName: 'Page', device: 'phone', language: 'de', revision: 1 })
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

  it('agrees with its rows in segments, whatever happened', async () => {
    const database = new Sqlite(flimbo.file)
    const scanId = database.prepare('SELECT max(id) FROM scan_rows').pluck().get() as number
    const insertWay = database.prepare(
      `INSERT OR IGNORE INTO event_ways (routeId, revisionId, pageId, kind, part, item, apart) VALUES (1, 1, ?, ?, ?, ?, ?)`,
    )
    const insert = database.prepare(
      `INSERT OR IGNORE INTO event_rows (at, codeId, scanId, wayId)
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
    const known = { pageId: page.id, kind: 'link', part: 'a', item: '', apart: '', hours: 5 }
    const [some = []] = fc.sample(fc.array(event, { minLength: 40, maxLength: 40, size: 'max' }), 1)
    database.transaction(() => {
      for (let i = 0; i < 1000; i++)
        for (const { pageId, kind, part, item, apart, hours } of [
          known,
          { ...known, kind: 'played' },
          ...some,
        ]) {
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
    })()
    database.close()
    const reading = new Sqlite(flimbo.file, { readonly: true })
    await waitFor(() => proveEvents(reading).segments > 0)
    expect(proveEvents(reading)).toMatchObject({ segments: 1, wrong: [] })
    reading.close()
  }, 60_000)

  it('has a row behind each figure, as many as it counts where none are folded', async () => {
    for (const { kind, part, item, scans } of await tallies(other)) {
      const filter = `kind=${kind}&part=${part}&item=${item}`
      expect((await rowsBehind(`pageId=${String(other.id)}&${filter}`)).total).toBe(scans)
    }
    const [recent, folded] = [await pieces(), 40]
    for (const count of EVENT_COUNTS) {
      const { total } = await rowsBehind(`codeId=${String(code.id)}&count=${count}`)
      expect(total).toBe((recent[0]?.[count] ?? 0) - (count === 'opened' ? folded : 0))
    }
  })

  it('names the scan, the piece, the page and the part in each row, in either order, page by page', async () => {
    const query = `pageId=${String(page.id)}&kind=link&part=a`
    const { rows, total } = await rowsBehind(`${query}&order=asc&pageSize=10&page=1`)
    const all = await rowsBehind(`${query}&order=desc&pageSize=100`)
    expect(total).toBeGreaterThan(100)
    expect(all.rows.map(({ at }) => at)).toEqual(all.rows.map(({ at }) => at).sort((a, b) => b - a))
    expect(rows).toHaveLength(10)
    expect(rows[0]).toMatchObject({
      codeName: code.name,
      pageName: 'Stop 1',
      partName: 'A part that was removed',
      kind: 'link',
      part: 'a',
      apart: null,
    })
  })

  it('keeps what programs did apart from what people did', async () => {
    const of = `pageId=${String(page.id)}&kind=opened`
    const [counted, apart, both] = [
      await rowsBehind(of),
      await rowsBehind(`${of}&counted=apart`),
      await rowsBehind(`${of}&counted=both`),
    ]
    expect(apart.rows.every((row) => row.apart !== null)).toBe(true)
    expect(counted.rows.every((row) => row.apart === null)).toBe(true)
    expect(both.total).toBe(counted.total + apart.total)
  })

  it('is written as a file by a job, a line each', async () => {
    const filter = { campaignId, kind: 'played', counted: 'both', from: day(now - 400 * 24 * HOUR_MS) }
    const { body: job } = await flimbo.ask<Job>('POST', '/api/page-event-files', filter)
    expect((await flimbo.ended(job.id)).state).toBe('done')
    const { body } = await flimbo.ask<Buffer>('GET', `/api/jobs/${String(job.id)}/file`)
    const [headings = [], ...lines] = readTable(String(body), ',').rows
    const { total } = await rowsBehind(`campaignId=${String(campaignId)}&kind=played&counted=both`)
    expect(lines).toHaveLength(total)
    const cell = (name: string) => lines[0]?.[headings.indexOf(name)]
    expect([cell('code'), cell('what'), Number.isNaN(Date.parse(cell('time_utc') ?? ''))]).toEqual([
      code.name,
      'played',
      false,
    ])
  })

  it('is asked of one owner, in days that there are', async () => {
    for (const query of [
      '',
      `pageId=${String(page.id)}&codeId=${String(code.id)}`,
      `pageId=${String(page.id)}&from=9999-12-31`,
      `pageId=${String(page.id)}&kind=danced`,
      `pageId=${String(page.id)}&pageSize=100000`,
    ])
      expect((await flimbo.refused('GET', `/api/page-event-rows?${query}`)).status).toBe(422)
  })
})
