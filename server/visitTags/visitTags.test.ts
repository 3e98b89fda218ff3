import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { NO_RULES } from '@flimbo/core/routing'
import {
  NO_TAGS,
  type QueueRow,
  type ReceivedHit,
  type VisitTag,
  type VisitTagSettings,
} from '@flimbo/core/visitTags'
import { DOOR, http, OWNER, runningFlimbo, type Running } from '../tests/running.ts'
import { GIVEN_UP_MS, pauseAfter } from './index.ts'

const BODY =
  '{"id": "{id}", "visit": "{visit}", "at": "{time}", "events": [{"name": "scan", "page": "{address}", "source": "{source}", "medium": "{medium}", "campaign": "{campaign}", "country": "{country}", "device": "{device}"}]}'
const TAG: VisitTag = {
  id: 'site',
  name: 'Site',
  kind: 'measurement',
  value: 'M-4711',
  address: 'https://collector.example/mp',
  firing: 'server',
  body: BODY,
  resting: false,
}
const FINAL =
  'https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26#today'

const directory = mkdtempSync(join(tmpdir(), 'flimbo-hits-'))
let flimbo: Running
let campaignId = 0
beforeAll(async () => {
  flimbo = await runningFlimbo({ FLIMBO_DATA_DIR: directory })
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
})
afterAll(async () => {
  await flimbo.close()
  rmSync(directory, { recursive: true, force: true })
})

async function change(make: (tags: VisitTag[]) => VisitTag[]) {
  const {
    value: { tags },
    version,
  } = (await flimbo.ask<{ value: VisitTagSettings; version: number }>('GET', '/api/visit-tags')).body
  return flimbo.ask<{ detail?: string }>('PATCH', '/api/visit-tags', {
    value: { tags: make(tags), consent: NO_TAGS.consent },
    version,
  })
}
async function define(...given: VisitTag[]): Promise<void> {
  const { status, body } = await change((tags) => [
    ...tags.filter(({ id }) => !given.some((tag) => tag.id === id)),
    ...given,
  ])
  if (status !== 200) throw new Error(JSON.stringify(body))
}
/** A tag called `key` with that for its ID, and a piece of that short link whose route fires it. */
async function piece(key: string, part: Partial<VisitTag> = {}): Promise<{ tag: VisitTag; routeId: number }> {
  const tag = { ...TAG, id: key, name: key, value: key, ...part }
  await define(tag)
  const { routeId } = await flimbo.code(campaignId, { slug: key })
  await flimbo.live(routeId, { ...NO_RULES, tags: [key] })
  return { tag, routeId }
}
const received = async (id: string) =>
  (await flimbo.ask<{ rows: ReceivedHit[] }>('GET', '/api/visit-tags/received')).body.rows
    .map((hit) => ({ ...hit, values: Object.fromEntries(hit.values) }))
    .filter(({ values }) => values.id === id)
const queue = async (id: string) =>
  (await flimbo.ask<{ rows: QueueRow[] }>('GET', '/api/visit-tags/queue')).body.rows.filter(
    ({ tagId }) => tagId === id,
  )
const soon = <T>(what: () => T | Promise<T>) => vi.waitFor(what, { timeout: 8000, interval: 50 })

describe('a hit sent by the server', () => {
  it('leaves the redirect as it is, and tells the collector the tags of the piece and nothing of the visitor', async () => {
    await piece('plain')
    expect(await flimbo.scan('/plain')).toMatchObject({ status: 302, headers: { location: FINAL } })
    const [hit] = await soon(async () => {
      const hits = await received('plain')
      expect(hits).toHaveLength(1)
      return hits
    })
    expect([hit?.by, hit?.method, hit?.site, hit?.path]).toEqual([
      'server',
      'POST',
      'collector.example',
      '/mp',
    ])
    expect(hit?.values).toEqual({
      id: 'plain',
      visit: expect.stringMatching(/^[0-9a-f-]{36}$/) as string,
      at: expect.stringMatching(/^\d{13}$/) as string,
      'events.0.name': 'scan',
      'events.0.page': FINAL,
      'events.0.source': 'pier-poster',
      'events.0.medium': 'print',
      'events.0.campaign': 'summer-26',
      'events.0.country': 'DE',
      'events.0.device': 'phone',
    })
    await soon(async () => {
      expect(await queue('plain')).toEqual([])
    })
  })

  it('is sent of test scans too, as far as the collector is a stand-in, and never of programs', async () => {
    await piece('tested')
    await flimbo.scan('/tested', { 'user-agent': 'Mozilla/5.0 (compatible; Examplebot/1.0)' })
    await flimbo.scan('/tested', {}, 'HEAD')
    await flimbo.ask('POST', '/api/phone/scans', {
      read: `${DOOR}/TESTED`,
      device: 'ipad',
      place: 'nl-groningen',
      language: 'nl',
    })
    const hits = await soon(async () => {
      const all = await received('tested')
      expect(all.length).toBeGreaterThan(0)
      return all
    })
    expect(hits.map(({ values }) => values['events.0.country'])).toEqual(['NL'])
  })

  it('of a test scan goes to no real collector', async () => {
    await piece('real', { address: 'https://collector.invalid/mp' })
    await flimbo.ask('POST', '/api/phone/scans', {
      read: `${DOOR}/REAL`,
      device: 'ipad',
      place: 'nl-groningen',
      language: 'nl',
    })
    await soon(async () => {
      expect(await queue('real')).toEqual([])
    })
    await flimbo.scan('/real')
    await soon(async () => {
      expect((await queue('real'))[0]?.fault).toContain('could not be reached')
    })
  })

  it('waits while the collector fails, outlives a restart, and follows the tag when that is put right', async () => {
    const { tag } = await piece('waits', { address: 'https://collector.example/broken' })
    for (let n = 0; n < 3; n++) await flimbo.scan('/waits')
    await soon(async () => {
      expect(await queue('waits')).toEqual([
        {
          tagId: 'waits',
          waiting: 3,
          givenUp: 0,
          oldestAt: expect.any(Number) as number,
          nextAt: expect.any(Number) as number,
          fault: 'the collector answered 500',
        },
      ])
    })
    await flimbo.stop()
    flimbo = await runningFlimbo({ FLIMBO_DATA_DIR: directory })
    await flimbo.ask('POST', '/api/session', { email: OWNER.email, password: OWNER.password })
    expect((await queue('waits'))[0]?.waiting).toBe(3)
    await define({ ...tag, address: TAG.address })
    expect((await flimbo.ask('POST', '/api/visit-tags/waits/queue')).status).toBe(204)
    await soon(async () => {
      expect([await received('waits'), await queue('waits')].map((all) => all.length)).toEqual([3, 0])
    })
  })

  it('is given up after three days, and then sent again or thrown away when somebody says so', async () => {
    await piece('late', { address: 'https://collector.example/gone' })
    await flimbo.scan('/late')
    await soon(async () => {
      expect((await queue('late'))[0]?.fault).toBe('the collector answered 404')
    })
    const file = new Sqlite(flimbo.file)
    file.prepare("UPDATE hits SET at = at - ? WHERE tagId = 'late'").run(GIVEN_UP_MS)
    file.close()
    await flimbo.ask('POST', '/api/visit-tags/late/queue')
    await soon(async () => {
      expect((await queue('late'))[0]).toMatchObject({ waiting: 0, givenUp: 1, nextAt: null })
    })
    await flimbo.ask('DELETE', '/api/visit-tags/late/queue')
    expect(await queue('late')).toEqual([])
  })

  it('does not reach into the house, and holds nobody up who is not away', async () => {
    const { routeId } = await piece('good')
    await define({
      ...TAG,
      id: 'inside',
      name: 'Inside',
      address: `http://127.0.0.1:${String(flimbo.ports.office)}/x`,
    })
    await flimbo.live(routeId, { ...NO_RULES, tags: ['inside', 'good'] })
    await flimbo.scan('/good')
    await soon(async () => {
      expect(await queue('inside')).toMatchObject([
        { waiting: 1, fault: 'the collector has a private address, which is not reached' },
      ])
    })
    await soon(async () => {
      expect(await received('good')).toHaveLength(1)
    })
  })

  it('is tried again after five seconds, then twice as long each time, an hour at most', () => {
    expect([1, 2, 3, 10, 11, 60].map(pauseAfter)).toEqual([
      5000, 10_000, 20_000, 2_560_000, 3_600_000, 3_600_000,
    ])
  })
})

describe('defining visit tags', () => {
  it('keeps one that a route fires, and says which; it may rest', async () => {
    const { tag } = await piece('used')
    const { status, body } = await change((tags) => tags.filter(({ id }) => id !== 'used'))
    expect([status, body.detail]).toEqual([
      409,
      'The tag “used” is used by “Pier poster, east gate”. Take it off there first, or let it rest.',
    ])
    await define({ ...tag, resting: true })
    expect((await flimbo.scan('/used')).status).toBe(302)
    expect(await queue('used')).toEqual([])
  })

  it('refuses a collector that is the front door itself, and rules that fire what is not defined', async () => {
    const { routeId } = await piece('own')
    expect(
      (
        await change((tags) =>
          tags.map((tag) => (tag.id === 'own' ? { ...tag, address: `${DOOR}/PIER` } : tag)),
        )
      ).body.detail,
    ).toContain('Flimbo’s own short links')
    expect((await flimbo.draft(routeId, { ...NO_RULES, tags: ['gone'] })).body).toMatchObject({
      status: 422,
      fields: [{ path: 'rules', message: expect.stringContaining('not defined any more') as string }],
    })
  })

  it('says in words what publishing changes', async () => {
    const { routeId } = await piece('words')
    await flimbo.draft(routeId, NO_RULES)
    expect(
      (await flimbo.ask<{ changes: string[] }>('GET', `/api/routes/${String(routeId)}/effect`)).body.changes,
    ).toEqual(['the visit tag “words” no longer fires'])
  })
})

describe('the collector stand-in', () => {
  it('reads values from a query, a form and JSON, shows what it cannot read, and serves what pages load', async () => {
    const { body: stored } = await flimbo.ask<{ value: VisitTagSettings; version: number }>(
      'GET',
      '/api/visit-tags',
    )
    const c = {
      id: 'c',
      name: 'Of this test',
      kind: 'measurement',
      value: 'c',
      address: 'https://collector.example/hit?id={id}',
      firing: 'page',
      body: '',
      resting: false,
    }
    expect(
      (
        await flimbo.ask('PATCH', '/api/visit-tags', {
          ...stored,
          value: { ...stored.value, tags: [...stored.value.tags, c] },
        })
      ).status,
    ).toBe(200)
    const at = (path: string, method = 'GET', body?: string, type = 'application/json') =>
      http(
        method,
        flimbo.ports.standIn,
        `/at/collector.example${path}`,
        { 'user-agent': 'Mozilla/5.0', 'content-type': type },
        body,
      )
    expect((await at('/hit?id=c&a=1')).headers['content-type']).toBe('image/gif')
    expect((await at('/container.js?id=c')).body).toContain('sendBeacon')
    expect((await at('/hit?id=c', 'POST', 'a=b+c', 'application/x-www-form-urlencoded')).status).toBe(204)
    await at('/hit?id=c', 'POST', '{"a":{"b":[1]}}')
    await at('/hit?id=c', 'POST', '{nonsense')
    expect((await received('c')).map(({ by, values: { id: _id, ...values } }) => [by, values])).toEqual([
      ['phone', { body: '{nonsense' }],
      ['phone', { 'a.b.0': '1' }],
      ['phone', { a: 'b c' }],
      ['phone', {}],
      ['phone', { a: '1' }],
    ])
    // Another workspace sees none of them.
    expect((await flimbo.person('admin', 'elsewhere')('GET', '/api/visit-tags/received')).body).toEqual({
      rows: [],
    })
  })
})
