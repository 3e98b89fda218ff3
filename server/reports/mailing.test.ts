import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import type { ReceivedMail } from '@flimbo/core/mail'
import type { Report, ReportMailing } from '@flimbo/core/reports'
import { DEFAULT_VIEW } from '@flimbo/core/results'
import { http, runningFlimbo, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'

let flimbo: Running
let campaignId: number
let code: Code
beforeAll(async () => {
  flimbo = await runningFlimbo({ FLIMBO_OFFICE_URL: 'https://office.saltmarsh.example' })
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  code = await flimbo.code(campaignId, { name: 'Pier poster' })
  storeScans(flimbo.file, [{ at: '2026-07-01T10:00:00Z', code }])
})
afterAll(() => flimbo.close())

const PERIOD = { from: '2026-07-01', to: '2026-07-31' }
const report = async (name: string, value: object = { view: { ...DEFAULT_VIEW, by: ['piece'] } }) =>
  (
    await flimbo.ask<Report>('POST', '/api/reports', {
      name,
      campaignId,
      period: PERIOD,
      blocks: [{ kind: 'question', key: 'a', title: 'Which piece?', value }],
    })
  ).body
const WEEKLY = { every: 'week', at: '07:00', weekday: 1, zone: 'Europe/Berlin' }
const mailing = async ({ id }: Report, settings: object) =>
  (await flimbo.ask<ReportMailing>('POST', `/api/reports/${String(id)}/mailings`, { ...WEEKLY, ...settings }))
    .body
const mails = async () => (await flimbo.ask<{ rows: ReceivedMail[] }>('GET', '/api/mail/received')).body.rows
const mailsTo = async (address: string) =>
  (await mails()).filter(({ recipients }) => recipients.includes(address))
const arrived = (address: string, count: number) =>
  expect.poll(async () => (await mailsTo(address)).length, { timeout: 20_000 }).toBe(count)
/** As if a mailing had been due long ago. */
function makeDue(id: number): void {
  const database = new Sqlite(flimbo.file)
  database.prepare('UPDATE report_mailings SET nextAt = 1753333200000 WHERE id = ?').run(id)
  database.close()
}

describe('a mailed report', () => {
  it('comes to each reader when it is due, once, with its figures, its files and a way to end it', async () => {
    const made = await report('Weekly')
    const { id, nextAt } = await mailing(made, {
      to: ['bo@gull.example', 'cy@gull.example'],
      files: ['pdf', 'xlsx'],
    })
    expect(new Date(nextAt ?? 0).getUTCDay()).toBe(1)
    makeDue(id)
    await arrived('bo@gull.example', 1)
    await arrived('cy@gull.example', 1)
    const [mail] = await mailsTo('bo@gull.example')
    expect(mail?.subject).toBe('Weekly: Saltmarsh Line · Summer timetable · 1 Jul 2026 to 31 Jul 2026')
    expect(mail?.text).toContain('Which piece?: 1')
    const names = mail?.attachments.map(({ name }) => name)
    expect(names).toEqual([
      expect.stringMatching(/^weekly-.*\.pdf$/),
      expect.stringMatching(/^weekly-.*\.xlsx$/),
    ])
    expect(mail?.attachments.every(({ bytes }) => bytes > 1000)).toBe(true)
    const after = (
      await flimbo.ask<{ rows: ReportMailing[] }>('GET', `/api/reports/${String(made.id)}/mailings`)
    ).body
    expect(after.rows[0]).toMatchObject({ fault: '', sentAt: 1_753_333_200_000 })
    expect(after.rows[0]?.nextAt ?? 0).toBeGreaterThan(Date.now())

    // RFC 8058: a mail program ends it by one POST.
    const end = /https:\/\/office\.saltmarsh\.example(\/unsubscribe\/\S+)/.exec(mail?.text ?? '')?.[1] ?? ''
    expect((await http('GET', flimbo.ports.office, end)).status).toBe(200)
    expect((await http('POST', flimbo.ports.office, end)).status).toBe(200)
    expect((await http('POST', flimbo.ports.office, `${end}x`)).status).toBe(410)
    await flimbo.ask('POST', `/api/report-mailings/${String(id)}/mails`)
    await arrived('cy@gull.example', 2)
    expect(await mailsTo('bo@gull.example')).toHaveLength(1)
  })

  it('that cannot be made says why to whoever has it mailed, and to nobody else', async () => {
    const { routeId, id: codeId } = await flimbo.code(campaignId, { name: 'Gone soon', slug: 'gone' })
    const made = await report('Broken', { campaignId, codeId, view: DEFAULT_VIEW })
    const { id } = await mailing(made, { to: ['di@gull.example'] })
    const database = new Sqlite(flimbo.file)
    database.pragma('foreign_keys = OFF')
    database.prepare('DELETE FROM codes WHERE id = ?').run(codeId)
    database.prepare('DELETE FROM routes WHERE id = ?').run(routeId)
    database.close()
    makeDue(id)
    await arrived('anna@saltmarsh.example', 1)
    const [mail] = await mailsTo('anna@saltmarsh.example')
    expect(mail?.subject).toBe('The report “Broken” could not be mailed')
    expect(mail?.text).toContain('What this question is about was deleted.')
    expect(mail?.text).toContain(`/reports/${String(made.id)}`)
    expect(await mailsTo('di@gull.example')).toEqual([])
    const { rows } = (
      await flimbo.ask<{ rows: ReportMailing[] }>('GET', `/api/reports/${String(made.id)}/mailings`)
    ).body
    expect(rows[0]?.fault).toContain('was deleted')
  })

  it('rests while it is paused, and goes with its report', async () => {
    const made = await report('Paused')
    const { id, settings, nextAt } = await mailing(made, { to: ['ed@gull.example'], isPaused: true })
    expect(nextAt).toBeNull()
    const path = `/api/report-mailings/${String(id)}`
    const changed = await flimbo.ask<ReportMailing>('PATCH', path, {
      ...settings,
      isPaused: false,
      every: 'hour',
    })
    expect((changed.body.nextAt ?? 0) % 3_600_000).toBe(0)
    await flimbo.ask('DELETE', `/api/reports/${String(made.id)}`)
    expect((await flimbo.refused('PATCH', path, settings)).status).toBe(404)
  })

  it.each([
    [{ to: [] }, 'at least one'],
    [{ to: ['bo'] }, 'whole e-mail address'],
    [{ to: ['bo@gull.example', 'BO@gull.example'] }, 'twice'],
    [{ to: ['bo@gull.example'], at: '7' }, '07:00'],
    [{ to: ['bo@gull.example'], monthDay: 31 }, 'from 1 to 28'],
    [{ to: ['bo@gull.example'], zone: 'Sea/Fog' }, ''],
  ])('refuses %j', async (settings, sentence) => {
    const { id } = await report('Refused')
    const refused = await flimbo.refused('POST', `/api/reports/${String(id)}/mailings`, {
      ...WEEKLY,
      ...settings,
    })
    expect(refused.fields?.[0]?.message).toContain(sentence)
  })
})
