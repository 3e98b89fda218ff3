import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ReceivedMail } from '@flimbo/core/mail'
import type { Notice, Watch } from '@flimbo/core/watches'
import { openDatabase, tables, type Database } from '../database/index.ts'
import { startReader, type Reader } from '../reader/index.ts'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { lookAtWatches } from './index.ts'

const DAY = 86_400_000
let flimbo: Running
let database: Database
let reader: Reader
let campaignId: number
let codeId: number
let routeId: number
beforeAll(async () => {
  // Links that end something in one click are under https (RFC 8058).
  flimbo = await runningFlimbo({ FLIMBO_OFFICE_URL: 'https://office.saltmarsh.example' })
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  const code = await flimbo.code(campaignId, { name: 'Pier poster', slug: 'pier' })
  codeId = code.id
  routeId = code.routeId
  database = await openDatabase(flimbo.file)
  reader = startReader(flimbo.file)
})
afterAll(async () => {
  await reader.close()
  await database.close()
  await flimbo.close()
})

const live = { tell: () => undefined }
/** Looks as if it were later; what is mailed then is sent now. */
async function look(now: number): Promise<void> {
  await lookAtWatches({ database, reader, live }, now)
  await database.write((manager) => manager.update(tables.outbox, { kind: 'mail' }, { nextAt: 1 }))
}
const add = async (body: Record<string, unknown>) =>
  (await flimbo.ask<Watch>('POST', '/api/watches', { every: 'once', n: null, ...body })).body
const notices = async () =>
  (await flimbo.ask<{ rows: Notice[] }>('GET', '/api/notices')).body.rows.map(({ sentence }) => sentence)
const mails = async () => (await flimbo.ask<{ rows: ReceivedMail[] }>('GET', '/api/mail/received')).body.rows
const mailed = (subject: RegExp) =>
  expect
    .poll(async () => (await mails()).filter((mail) => subject.test(mail.subject)).length, {
      timeout: 15_000,
    })
    .toBe(1)
const mailOn = async (subject: RegExp) => (await mails()).find((mail) => subject.test(mail.subject))

describe('a watch', () => {
  it('tells of the first scan and of a number of them, once, on the desk and by mail', async () => {
    await add({ codeId, what: 'first' })
    await add({ routeId, what: 'count', n: 3 })
    await look(Date.now() + 2 * 60_000)
    expect(await notices()).toEqual([])
    for (let i = 0; i < 3; i++) await flimbo.scan('/pier')
    for (let i = 2; i < 5; i++) await look(Date.now() + i * 2 * 60_000)
    expect(await notices()).toEqual([
      expect.stringMatching(/^The route “.*” passed 3 scans: it has 3 by now\.$/),
      'The piece “Pier poster” was scanned for the first time.',
    ])
    await mailed(/was scanned for the first time/)
    const mail = await mailOn(/was scanned for the first time/)
    const headers = new Map(mail?.headers)
    // RFC 8058: one address under https, and what a mail program sends there.
    expect(headers.get('list-unsubscribe')?.replace(/\s+/g, ' ')).toMatch(
      /^List-Unsubscribe: <https:\/\/office\.saltmarsh\.example\/unsubscribe\/[\w.-]+>$/,
    )
    expect(headers.get('list-unsubscribe-post')).toBe('List-Unsubscribe-Post: List-Unsubscribe=One-Click')
  })

  it('is refused for what has happened already, and kept once however often it is added', async () => {
    const refused = await flimbo.refused('POST', '/api/watches', {
      codeId,
      what: 'first',
      every: 'once',
      n: null,
    })
    expect(refused.fields?.[0]?.message).toContain('scanned already')
    const many = await flimbo.refused('POST', '/api/watches', { codeId, what: 'count', every: 'once', n: 2 })
    expect(many.fields?.[0]?.message).toContain('3 scans already')
    const once = await add({ codeId, what: 'silent', n: 2 })
    expect((await add({ codeId, what: 'silent', n: 2 })).id).toBe(once.id)
  })

  it('tells of silence while something is live, once', async () => {
    await look(Date.now() + 3 * DAY)
    expect(await notices()).toContain(
      'The piece “Pier poster” is live, and was not scanned for 2 days. Is it still there?',
    )
    const before = (await notices()).length
    await look(Date.now() + 6 * DAY)
    expect((await notices()).length).toBe(before)
  })

  it('sums a day up, with pieces and leads, against the day before, when the day is over', async () => {
    await add({ campaignId, what: 'summary', every: 'day' })
    storeLead(flimbo.file, { campaignId, codeId, routeId, title: 'Ada Sørensen' })
    // Before seven in the morning, the day that is summed up first is yesterday.
    for (const days of [1, 2]) await look(Date.now() + days * DAY + 7 * 3_600_000)
    await mailed(/^Summer timetable: 3 scans/)
    const mail = await mailOn(/^Summer timetable: 3 scans/)
    expect(mail?.text).toMatch(/3 scans \(0 scans in the time before\), 1 of them unique, and 1 new lead\./)
    expect(mail?.text).toContain('Pier poster: 3 scans')
    expect(mail?.text).toContain('Ada Sørensen: came by “Pier poster”')
  })

  it('tells of each lead at once, each person once, and of no more than 31 in an hour', async () => {
    await add({ campaignId, what: 'leads' })
    await add({ codeId, what: 'leads' })
    const lead = (title: string) => storeLead(flimbo.file, { campaignId, codeId, routeId, title })
    lead('Bo')
    await mailed(/^New lead.*Bo$/)
    for (let i = 0; i < 40; i++) lead(`Many ${String(i)}.`)
    const told = flimbo.rows<{ n: number }>("SELECT count(*) AS n FROM mails WHERE kind = 'lead'")
    expect(told).toEqual([{ n: 31 }])
    await mailed(/Many 29\.$/)
    expect((await mailOn(/Many 29\.$/))?.text).toContain('the next ones are only in the inbox')
  })

  it('is ended by its own person, or by one click in a mail program, and by nobody else', async () => {
    const list = async () => (await flimbo.ask<{ rows: Watch[] }>('GET', '/api/watches')).body.rows
    const all = await list()
    const other = flimbo.person('editor')
    const [first] = all
    expect((await other('DELETE', `/api/watches/${String(first?.id)}`)).status).toBe(404)
    await flimbo.ask('DELETE', `/api/watches/${String(first?.id)}`)
    expect(await list()).toHaveLength(all.length - 1)

    const mail = await mailOn(/^Summer timetable: 3 scans/)
    const path = /unsubscribe\/[\w.-]+/.exec(new Map(mail?.headers).get('list-unsubscribe') ?? '')?.[0] ?? ''
    const at = (token: string, method: string) =>
      fetch(`http://127.0.0.1:${String(flimbo.ports.office)}/${token}`, {
        method,
        ...(method === 'POST' ? { body: new URLSearchParams('List-Unsubscribe=One-Click') } : {}),
      })
    expect((await at(path, 'GET')).status).toBe(200)
    expect((await list()).some(({ what }) => what === 'summary')).toBe(true)
    expect((await at(`${path}x`, 'POST')).status).toBe(410)
    expect((await at(path, 'POST')).status).toBe(200)
    expect((await list()).some(({ what }) => what === 'summary')).toBe(false)
  })

  it('of something that is gone is gone', async () => {
    const code = await flimbo.code(campaignId, { name: 'Gone', slug: 'gone' })
    await add({ codeId: code.id, what: 'first' })
    await flimbo.ask('POST', '/api/notices/seen', {
      ids: (await flimbo.ask<{ rows: Notice[] }>('GET', '/api/notices')).body.rows.map(({ id }) => id),
    })
    expect(await notices()).toEqual([])
  })
})
