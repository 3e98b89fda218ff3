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
import { DOOR, OWNER, runningFlimbo, type Running } from '../tests/running.ts'
import { GIVEN_UP_MS } from '../jobs/index.ts'

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
    file.prepare("UPDATE outbox SET at = at - ? WHERE topic = 'late'").run(GIVEN_UP_MS)
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
})
