import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { newQuestion, type Question } from '@flimbo/core/forms'
import { textFromPlain } from '@flimbo/core/fields'
import type { Mail, MailSetup, ReceivedMail, StandInManner } from '@flimbo/core/mail'
import { newPart, type Page, type PartOf } from '@flimbo/core/pages'
import { openDatabase } from '../database/index.ts'
import { dropUnconfirmed } from './index.ts'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, PHONE, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let codeId: number
let routeId: number
let page: Page
const QUESTIONS: Question[] = [
  { ...newQuestion('short', 'name'), label: { en: 'Your name' }, name: 'Name' },
  { ...newQuestion('mail', 'mail'), label: { en: 'Your mail' }, name: 'Mail' },
]
const FORM: Partial<PartOf<'form'>> = {
  questions: QUESTIONS,
  mails: true,
  mailSubject: { en: 'Hello {name}' },
  mailText: {
    en: [
      { kind: 'paragraph', runs: [{ text: 'Dear {Name}, ' }, { text: 'see you', bold: true }] },
      {
        kind: 'list',
        isNumbered: false,
        items: [[{ text: 'Timetable', link: 'https://saltmarsh.example/timetable' }]],
      },
    ],
    de: textFromPlain('Moin {Name}!'),
  },
  replyTo: 'crew@saltmarsh.example',
}
const made = async (name: string, more: Partial<PartOf<'form'>>): Promise<Page> => {
  const created = await flimbo.page(campaignId, name, [{ ...newPart('form', 'f'), ...FORM, ...more }])
  return created
}

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  page = await made('Pass', {})
  const code = await flimbo.codeTo(campaignId, page.id, 'pass')
  codeId = code.id
  routeId = code.routeId
})
afterAll(() => flimbo.close())
beforeEach(() => manner('take'))

let serial = 0
/** Somebody who answered, with an address of their own. */
function answer(
  given: Parameters<typeof storeLead>[1] & { name?: string } = {},
  mails = { answer: true, confirmBy: null as number | null },
  on = page,
): { id: number; mail: string } {
  const { name = 'Ada', ...more } = given
  const mail = given.email ?? `ada.${String(++serial)}@mailbox.example`
  const id = storeLead(
    flimbo.file,
    {
      campaignId,
      pageId: on.id,
      pageRevisionId: on.revisionId,
      codeId,
      routeId,
      answers: { name, mail },
      ...more,
      email: mail.toLowerCase(),
    },
    mails,
  )
  return { id, mail }
}
const manner = (next: StandInManner) => flimbo.ask('POST', '/api/mail/received', { manner: next })
const received = async () =>
  (await flimbo.ask<{ rows: ReceivedMail[] }>('GET', '/api/mail/received')).body.rows
const to = async (address: string) =>
  (await received()).filter(({ recipients }) => recipients.includes(address))
const arrived = (address: string, count = 1) =>
  expect.poll(async () => (await to(address)).length, { timeout: 15_000 }).toBe(count)
const mails = async (query = '') =>
  (await flimbo.ask<{ rows: Mail[] }>('GET', `/api/mails?order=desc${query}`)).body.rows
const mailOf = async (leadId: number) => (await mails()).find((each) => each.leadId === leadId)

describe('a mail to whoever answered', () => {
  it('says what the form says, in both ways from one source, and comes once', async () => {
    const { id, mail } = answer({ name: 'Zoë <b>&\r\nBcc: all@a.example' })
    await arrived(mail)
    const [sent] = await to(mail)
    // Read by a parser of its own (RFC 5322; RFC 2047 for what is no ASCII in headers).
    expect(sent).toMatchObject({
      subject: 'Hello Zoë <b>& Bcc: all@a.example',
      from: '"Saltmarsh Line" <office@saltmarsh.example>',
      replyTo: 'crew@saltmarsh.example',
      sender: 'bounces@saltmarsh.example',
      recipients: [mail],
    })
    expect(sent?.text).toContain('Dear Zoë <b>&')
    expect(sent?.text).toContain('- Timetable (https://saltmarsh.example/timetable)')
    expect(sent?.html).toContain('Dear Zoë &lt;b&gt;&amp;')
    expect(sent?.html).toContain('<strong>see you</strong>')
    expect(sent?.html).not.toMatch(/<b>|<img|<script|<link/)
    const headers = new Map(sent?.headers)
    expect(headers.has('bcc')).toBe(false)
    expect(headers.get('auto-submitted')).toBe('Auto-Submitted: auto-generated')
    expect(headers.has('list-unsubscribe')).toBe(false)
    // Every line of a header is ASCII and short enough (RFC 5322, section 2.1.1).
    for (const [, line] of sent?.headers ?? [])
      for (const each of line.split('\r\n')) expect(each).toMatch(/^[\t -~]{1,998}$/)
    expect(await mailOf(id)).toMatchObject({ state: 'sent', address: mail, kind: 'answer' })
    await new Promise((resolve) => setTimeout(resolve, 2500))
    expect(await to(mail)).toHaveLength(1)
  })

  it('is in the language that they answered in', async () => {
    const { mail } = answer({ language: 'de' })
    await arrived(mail)
    const [sent] = await to(mail)
    expect(sent?.text).toContain('Moin Ada!')
    expect(sent?.text).toContain('Sie erhalten diese E-Mail')
    expect(sent?.html).toContain('<html lang="de" dir="ltr">')
  })

  it('is not sent to whoever is held, until somebody frees them; and never too often to one address', async () => {
    const held = answer({ held: 'quick' })
    const often = 'often@mailbox.example'
    for (let i = 0; i < 9; i++) answer({ email: often })
    await arrived(often, 5)
    expect(await to(held.mail)).toEqual([])
    const freed = await flimbo.ask('POST', '/api/lead-changes', { ids: [held.id], set: { isHeld: false } })
    expect(freed).toMatchObject({ status: 200 })
    await arrived(held.mail)
    expect(await to(often)).toHaveLength(5)
  })

  it('goes when they are erased, sent or waiting: nothing of them is left in any table', async () => {
    await manner('delay')
    const { id, mail } = answer({ name: 'Erika Gone' })
    await expect.poll(async () => (await mailOf(id))?.reply ?? '').toContain('451')
    await flimbo.ask('POST', `/api/leads/${String(id)}/erase`, {})
    const names = flimbo.rows<{ name: string }>(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'",
    )
    for (const { name } of names) {
      const text = JSON.stringify(flimbo.rows(`SELECT * FROM "${name}"`))
      expect([name, text.includes('Erika Gone'), text.includes(mail)]).toEqual([name, false, false])
    }
    expect(flimbo.rows('SELECT count(*) AS n FROM outbox')).toEqual([{ n: 0 }])
  })
})

describe('a mail server', () => {
  it('that puts a mail off is asked again later, with the same Message-ID', async () => {
    const { id, mail } = answer({ email: `Drop@mailbox${String(++serial)}.example` })
    // It takes the mail, and hangs up before it says so.
    await expect.poll(async () => (await mailOf(id))?.reply ?? '', { timeout: 10_000 }).toContain('421')
    expect(await mailOf(id)).toMatchObject({ state: 'waiting', attempts: 1 })
    await flimbo.ask('POST', `/api/mails/${String((await mailOf(id))?.id)}/attempts`)
    await arrived(mail, 2)
    const [second, first] = await to(mail)
    expect(second?.messageId).toBe(first?.messageId)
    expect(second?.messageId).toMatch(/^<[0-9a-f]{24}@saltmarsh\.example>$/)
  })

  it('that refuses a mail for good is not asked again, until somebody says so', async () => {
    await manner('refuse')
    const { id, mail } = answer()
    await expect.poll(async () => (await mailOf(id))?.state, { timeout: 10_000 }).toBe('refused')
    const found = await mailOf(id)
    expect(found?.reply).toContain('550')
    const { counts } = (await flimbo.ask<MailSetup>('GET', '/api/mail')).body
    expect(counts.refused).toBeGreaterThan(0)
    expect((await mails('&state=refused')).map((each) => each.id)).toContain(found?.id)
    await manner('take')
    await flimbo.ask('POST', `/api/mails/${String(found?.id)}/attempts`)
    await arrived(mail)
    expect((await flimbo.refused('POST', `/api/mails/${String(found?.id)}/attempts`)).detail).toContain(
      'sent already',
    )
  })

  it('that never answered for three days is given up, and said to be', async () => {
    await manner('delay')
    const { id } = answer()
    await expect.poll(async () => (await mailOf(id))?.attempts).toBe(1)
    // As if it had waited since then.
    const old = Date.now() - 73 * 3_600_000
    const database = new Sqlite(flimbo.file)
    database.prepare("UPDATE outbox SET at = ?, nextAt = 1 WHERE kind = 'mail'").run(old)
    database.close()
    const found = await mailOf(id)
    await expect.poll(async () => (await mailOf(id))?.state, { timeout: 70_000 }).toBe('given-up')
    expect((await mails('&state=given-up')).map((each) => each.id)).toContain(found?.id)
    await flimbo.ask('DELETE', `/api/mails/${String(found?.id)}`)
    expect(await mailOf(id)).toBeUndefined()
  })

  it('is told to nobody with what it is signed in by', async () => {
    const { body } = await flimbo.ask<MailSetup>('GET', '/api/mail')
    expect(Object.keys(body.server ?? {}).sort()).toEqual(['bounce', 'from', 'host', 'isStandIn', 'port'])
  })
})

describe('a confirmed mail address', () => {
  const DAY = 86_400_000
  const ask = (path: string, method = 'GET') =>
    fetch(`http://127.0.0.1:${String(flimbo.ports.door)}${path}`, {
      method,
      headers: { 'user-agent': PHONE },
      redirect: 'manual',
    })
  const linkIn = (mail: ReceivedMail | undefined) =>
    /http:\/\/go\.saltmarsh\.example(\/~confirm\/[\w.-]+)/.exec(mail?.text ?? '')?.[1] ?? ''

  it('is asked for by a link, confirmed by a press of a button, and thanked only then', async () => {
    const confirms = await made('Confirmed', { confirms: true })
    const { id, mail } = answer(
      { language: 'de' },
      { answer: true, confirmBy: Date.now() + 7 * DAY },
      confirms,
    )
    await arrived(mail)
    const [asked] = await to(mail)
    expect(asked?.subject).toBe('Bitte bestätigen Sie Ihre E-Mail-Adresse')
    // Whoever typed somebody else's address writes them nothing.
    expect(asked?.text).not.toContain('Ada')
    const path = linkIn(asked)
    // What follows links in mails without a person confirms nothing.
    const shown = await ask(path)
    expect([shown.status, shown.headers.get('content-language')]).toEqual([200, 'de'])
    expect(await shown.text()).toContain(`Ist <b dir="ltr">${mail}</b> Ihre Adresse?`)
    expect(flimbo.rows(`SELECT confirmedAt FROM leads WHERE id = ${String(id)}`)).toEqual([
      { confirmedAt: null },
    ])
    for (let i = 0; i < 2; i++)
      expect(await (await ask(path, 'POST')).text()).toContain('Ihre E-Mail-Adresse ist bestätigt.')
    await arrived(mail, 2)
    expect((await to(mail))[0]?.text).toContain('Moin Ada!')
    expect(await (await ask(path)).text()).toContain('bestätigt')
  })

  it('is asked of nobody who gave none, and what waited for one that came too late is not sent any more', async () => {
    const none = storeLead(
      flimbo.file,
      { campaignId, pageId: page.id, pageRevisionId: page.revisionId, codeId, routeId },
      { answer: true, confirmBy: Date.now() + DAY },
    )
    const late = answer({}, { answer: true, confirmBy: Date.now() - 1 })
    const open = answer({}, { answer: true, confirmBy: Date.now() + DAY })
    expect(flimbo.rows('SELECT confirmBy FROM leads WHERE id = ?', none)).toEqual([{ confirmBy: null }])
    const database = await openDatabase(flimbo.file)
    await dropUnconfirmed(database, Date.now())
    await database.close()
    const waiting = flimbo.rows<{ leadId: number }>("SELECT leadId FROM mails WHERE state = 'unconfirmed'")
    expect([late.id, open.id].map((id) => waiting.some(({ leadId }) => leadId === id))).toEqual([false, true])
  })

  it('is not confirmed by a link that was made up, is too late, or whose person was erased', async () => {
    const late = answer({}, { answer: false, confirmBy: Date.now() - 1 })
    const gone = answer({}, { answer: false, confirmBy: Date.now() + DAY })
    await arrived(gone.mail)
    const path = linkIn((await to(gone.mail))[0])
    await flimbo.ask('POST', `/api/leads/${String(gone.id)}/erase`, {})
    await arrived(late.mail)
    const latePath = linkIn((await to(late.mail))[0])
    for (const each of [
      path,
      latePath,
      path.replace(/.$/, 'x'),
      '/~confirm/',
      `/~confirm/${'a'.repeat(9000)}`,
    ])
      expect([each, (await ask(each, 'POST')).status]).toEqual([each, 410])
    expect(flimbo.rows(`SELECT confirmedAt FROM leads WHERE id = ${String(late.id)}`)).toEqual([
      { confirmedAt: null },
    ])
  })
})
