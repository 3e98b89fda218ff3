import Sqlite from 'better-sqlite3'
import { strFromU8, unzipSync } from 'fflate'
import Papa from 'papaparse'
import readWorkbook from 'read-excel-file/node'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import type { Job } from '@flimbo/core/jobs'
import type { Report, ReportData, ReportLink } from '@flimbo/core/reports'
import { DEFAULT_VIEW, type Answers } from '@flimbo/core/results'
import { PLAIN_LOOK } from '@flimbo/core/symbol'
import { readPdf } from '../tests/pdfText.ts'
import { http, runningFlimbo, type Answer, type Running } from '../tests/running.ts'
import { storeScans } from '../tests/scanSample.ts'

let flimbo: Running
let campaignId: number
let clientId: number
let poster: Code
let card: Code
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  const campaign = await flimbo.campaign()
  ;({ id: campaignId, clientId } = campaign)
  poster = await flimbo.code(campaignId, { name: '=Poster, east “gate” ğ', medium: 'print' })
  card = await flimbo.code(campaignId, { name: 'Desk card', medium: 'card', routeId: poster.routeId })
  storeScans(
    flimbo.file,
    Array.from({ length: 60 }, (_, i) => ({
      at: `2026-07-${String(1 + (i % 20)).padStart(2, '0')}T10:00:00Z`,
      code: i % 3 === 0 ? card : poster,
      city: i % 2 === 0 ? 'Husum' : 'Emden',
    })),
  )
})
afterAll(() => flimbo.close())

const JULY = { from: '2026-07-01', to: '2026-07-31' }
const question = (key: string, view: object = {}, more: object = {}) => ({
  kind: 'question',
  key,
  value: { view: { ...DEFAULT_VIEW, ...view } },
  ...more,
})
const words = (key: string, text: string) => ({
  kind: 'words',
  key,
  text: [{ kind: 'paragraph', runs: [{ text }] }],
})
const content = (blocks: object[], more: object = {}) => ({
  name: 'July',
  campaignId,
  period: JULY,
  blocks,
  ...more,
})
const save = async (body: object) => {
  const answer = await flimbo.ask<Report>('POST', '/api/reports', body)
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body))
  return answer.body
}
const BLOCKS = [
  words('a', 'A good month.'),
  question('b', { by: ['piece'] }, { title: 'Which piece?' }),
  question('c', { by: ['day'] }, { rows: 0 }),
  question('d', { what: 'leadRate', by: ['city'], against: 'before' }, { drawnAs: 'map' }),
]
async function file(id: number, as: string): Promise<Uint8Array> {
  const { body } = await flimbo.ask<Job>('POST', `/api/reports/${String(id)}/files`, { file: as })
  const job = await flimbo.ended(body.id)
  expect(job).toMatchObject({ state: 'done', sentence: 'The file is ready.', attempts: 1 })
  const answer = await flimbo.ask<Uint8Array | object>('GET', `/api/jobs/${String(body.id)}/file`)
  return answer.body instanceof Uint8Array ? answer.body : Buffer.from(JSON.stringify(answer.body))
}

describe('a report', () => {
  it('answers as the figures do, to the unit', async () => {
    const { id } = await save(content(BLOCKS))
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    const asked = await flimbo.ask<Answers>('POST', '/api/figures', {
      campaignId,
      ...JULY,
      questions: [{ by: ['piece'], top: 500 }],
    })
    expect(body.questions[0]?.answer).toEqual(asked.body.answers[0])
    expect(body.questions.map(({ total }) => total.scans)).toEqual([60, 60, 60])
    expect(body.questions.map(({ title }) => title)).toEqual([
      'Which piece?',
      'Scans by day',
      'Leads per scan by city',
    ])
    expect(body.questions[2]?.before).toEqual({ from: '2026-05-31', to: '2026-06-30', campaign: null })
  })

  it('is a PDF whose text another library reads, tagged, with numbered pages and its charts as figures', async () => {
    const { id } = await save(content(BLOCKS))
    const pdf = await readPdf(await file(id, 'pdf'))
    for (const said of [
      'A good month.',
      'Which piece?',
      '=Poster, east “gate” ğ',
      'Desk card 20',
      'Scans 60',
      'Husum, Germany',
      '1 Jul 2026 to 31 Jul 2026, Europe/Berlin · against 31 May 2026 to 30 Jun 2026',
      'Days are those of Europe/Berlin',
    ])
      expect(pdf.text).toContain(said)
    pdf.pages.forEach((page, i) => {
      expect(page).toContain(`Page ${String(i + 1)} of ${String(pdf.pages.length)}`)
    })
    expect(new Set(pdf.tags)).toEqual(
      new Set(['Root', 'Document', 'H1', 'H2', 'P', 'Span', 'Figure', 'Table', 'TR', 'TH', 'TD']),
    )
    expect(pdf.alternatives).toContain('Which piece?: 60 scans, 2 rows')
    expect(pdf.info).toMatchObject({ Title: 'July', Author: 'Saltmarsh Line' })
  })

  it('is a sheet whose cells another library reads as the numbers of the API, one sheet a question', async () => {
    const { id } = await save(content(BLOCKS))
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    const bytes = Buffer.from(await file(id, 'xlsx'))
    const sheets = await readWorkbook(bytes)
    expect(sheets.map(({ sheet }) => sheet)).toEqual([
      'Report',
      'Which piece',
      'Scans by day',
      'Leads per scan by city',
    ])
    const rows = sheets[1]?.data ?? []
    const head = rows.findIndex((row) => row[0] === 'Piece')
    expect(rows[head]?.slice(0, 3)).toEqual(['Piece', 'Scans', 'Unique scans'])
    const cells = rows.slice(head + 1, head + 3).map((row) => row.slice(0, 3))
    const answer = body.questions[0]?.answer
    expect(cells).toEqual(
      answer?.rows.map(({ keys: [key = ''], scans, uniques }) => [answer.names.piece?.[key], scans, uniques]),
    )
    // Figures are numbers, and what begins with = is text.
    expect(cells[0]).toEqual(['=Poster, east “gate” ğ', 40, 40])
    expect(rows[head + 3]?.slice(0, 2)).toEqual(['All', 60])
  })

  it('is CSV, a file a question, in which nothing is a formula; and JSON as the API has it', async () => {
    const { id } = await save(content(BLOCKS))
    const files = unzipSync(await file(id, 'csv'))
    expect(Object.keys(files)).toEqual([
      '01-which-piece.csv',
      '02-scans-by-day.csv',
      '03-leads-per-scan-by-city.csv',
    ])
    const first = Papa.parse<string[]>(strFromU8(files['01-which-piece.csv'] ?? new Uint8Array()), {
      skipEmptyLines: true,
    }).data
    expect(first[1]?.slice(0, 2)).toEqual(["'=Poster, east “gate” ğ", '40'])
    const json = JSON.parse(Buffer.from(await file(id, 'json')).toString('utf8')) as ReportData
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    expect(json.questions).toEqual(body.questions)
  })

  it('is shown before it is saved, and nothing that is typed becomes markup', async () => {
    const { body } = await flimbo.ask<{ markup: string }>('POST', '/api/report-pages', {
      ...content([
        words('a', '<script>alert(1)</script>'),
        question('b', { by: ['piece'] }, { title: '<b>"x"' }),
      ]),
      name: '</title><script>',
    })
    expect(body.markup).not.toMatch(/<script|<b>"x/)
    expect(body.markup).toContain('&lt;script&gt;alert(1)')
    expect(body.markup).toContain('<svg xmlns=')
    // A strict policy lets no inline styles in.
    expect(body.markup.replace(/<style[^>]*>/, '')).not.toMatch(/\sstyle=/)
  })

  it('keeps to what it is of: other clients’ questions are refused, and one whose thing is gone says so', async () => {
    const database = new Sqlite(flimbo.file)
    const { lastInsertRowid } = database
      .prepare("INSERT INTO clients (workspaceId, name, createdAt) VALUES (1, 'Gull Hotels', 0)")
      .run()
    database.close()
    const refused = await flimbo.refused('POST', '/api/reports', {
      name: 'Theirs',
      clientId: Number(lastInsertRowid),
      blocks: [{ ...question('a'), value: { campaignId, view: DEFAULT_VIEW } }],
    })
    expect(refused.fields?.[0]).toMatchObject({ path: 'blocks.0.value' })
    const gone = await flimbo.code(campaignId, { name: 'Short-lived' })
    const { id } = await save(
      content([{ ...question('a'), value: { campaignId, codeId: gone.id, view: DEFAULT_VIEW } }]),
    )
    await flimbo.ask('DELETE', `/api/routes/${String(gone.routeId)}`)
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    expect(body.questions.length + body.failed.length).toBe(1)
  })

  it('is not overwritten by whoever opened it before somebody else saved it', async () => {
    const { id, version, content: whole } = await save(content([]))
    const path = `/api/reports/${String(id)}`
    const body = { version, content: { ...whole, name: 'August' } }
    expect((await flimbo.ask<Report>('PATCH', path, body)).body.content.name).toBe('August')
    const problem = await flimbo.refused('PATCH', path, body)
    expect(problem.status).toBe(409)
    expect(await flimbo.ask('DELETE', path)).toMatchObject({ status: 204 })
  })

  it('says what is too much: questions, keys twice, days in the wrong order', async () => {
    const many = Array.from({ length: 25 }, (_, i) => question(`q${String(i)}`))
    const sentenceOf = async (body: object) =>
      (await flimbo.refused('POST', '/api/reports', body)).fields?.[0]?.message
    expect(await sentenceOf(content(many))).toContain('at most 24 questions')
    expect(await sentenceOf(content([question('a'), question('a')]))).toContain('same key')
    expect(await sentenceOf(content([], { period: { from: '2026-07-02', to: '2026-07-01' } }))).toContain(
      'before the first',
    )
    expect(await sentenceOf(content([], { name: ' ' }))).toContain('Give the report a name')
    expect(await sentenceOf(content([], { clientId }))).toContain('of a client or of a campaign')
  })

  it('of the last days there are is made; what has too many parts says what to ask instead', async () => {
    const last = await save(
      content([question('a', { by: ['month'] })], { period: { from: '2200-01-01', to: '2200-12-31' } }),
    )
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(last.id)}/data`)
    expect(body.questions[0]?.total.scans).toBe(0)
    const years = { from: '1990-01-01', to: '2089-12-31' }
    const long = await save(content([question('a', { by: ['hour'] }), question('b')], { period: years }))
    const made = await flimbo.ask<ReportData>('GET', `/api/reports/${String(long.id)}/data`)
    expect(made.body.failed[0]?.sentence).toMatch(/Choose|Ask|shorter|longer/)
    expect(made.body.questions).toHaveLength(1)
    const pdf = await readPdf(await file(long.id, 'pdf'))
    expect(pdf.text).toContain(made.body.failed[0]?.sentence.slice(0, 30))
    expect(
      await flimbo.refused(
        'POST',
        '/api/reports',
        content([], { period: { from: '9999-01-01', to: '9999-12-31' } }),
      ),
    ).toMatchObject({ status: 422 })
  })
})

describe('a link to a report', () => {
  const links = (id: number) => `/api/reports/${String(id)}/links`
  const pathOf = ({ address }: ReportLink) => new URL(address).pathname
  const open = (path: string, headers: Record<string, string> = {}): Promise<Answer<string>> =>
    http('GET', flimbo.ports.office, path, headers) as Promise<Answer<string>>
  const give = (path: string, password: string): Promise<Answer<string>> =>
    http(
      'POST',
      flimbo.ports.office,
      path,
      { 'content-type': 'application/x-www-form-urlencoded' },
      new URLSearchParams({ password }).toString(),
    ) as Promise<Answer<string>>
  const share = async (body: object) => {
    const { id } = await save(content(BLOCKS))
    const { body: link } = await flimbo.ask<ReportLink>('POST', links(id), body)
    return { id, link, path: pathOf(link) }
  }

  it('shows the same as the report, with its files, to whoever has it', async () => {
    const { id, path } = await share({ until: '2099-12-31' })
    const page = await open(path)
    expect(page.status).toBe(200)
    expect(page.headers['content-security-policy']).toContain("default-src 'none'")
    expect(page.body).toContain('Which piece?')
    expect(page.body).not.toContain('<script')
    const pdf = await open(`${path}/pdf`)
    expect(Buffer.from(pdf.body).subarray(0, 5).toString()).toBe('%PDF-')
    const json = (await open(`${path}/json`)) as Answer<unknown>
    const { body } = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    expect((json.body as ReportData).questions).toEqual(body.questions)
    const { rows } = (await flimbo.ask<{ rows: ReportLink[] }>('GET', links(id))).body
    expect(rows[0]).toMatchObject({ opened: 1, isOver: false, hasPassword: false })
  })

  it('is over when it was deleted, its day has passed, or it was made up', async () => {
    const { link, path } = await share({ until: '2099-12-31' })
    await flimbo.ask('DELETE', `/api/report-links/${String(link.id)}`)
    for (const each of [path, `${path}x`, '/shared-report/1.AAAAAAAAAAAAAAAAAAAAAA', '/shared-report/']) {
      const { status, body } = await open(each)
      expect([status, body.includes('not shared any more')]).toEqual([410, true])
    }
    // In the language of whoever opens it (RFC 4647).
    const german = await open(path, { 'accept-language': 'de-AT, en;q=0.5' })
    expect(german.headers['content-language']).toBe('de')
    expect(german.body).toMatch(
      /^<!doctype html><html lang="de">.*<h1>Dieser Bericht wird nicht mehr geteilt/s,
    )
    expect((await open(path, { 'accept-language': 'he' })).body).toContain('<html lang="he" dir="rtl">')
    const { id } = await save(content([]))
    const refused = await flimbo.refused('POST', links(id), { until: '2026-01-01' })
    expect(refused.fields?.[0]).toMatchObject({ path: 'until' })
  })

  it('with a password asks for it, page and files alike; wrong ones have to wait', async () => {
    const { path } = await share({ until: '2099-12-31', password: 'low tide at noon' })
    const asked = await open(path)
    expect([asked.status, asked.body.includes('Which piece?')]).toEqual([401, false])
    expect((await open(path, { 'accept-language': 'da' })).body).toContain('Adgangskode')
    expect((await open(`${path}/pdf`)).status).toBe(303)
    expect((await give(path, 'high tide')).status).toBe(403)
    const right = await give(path, 'low tide at noon')
    expect(right.status).toBe(303)
    const [set = ''] = right.headers['set-cookie'] ?? []
    expect(set).toMatch(/; Path=\/shared-report\/.+; HttpOnly; SameSite=Lax/)
    const cookie = set.split(';', 1)[0] ?? ''
    expect((await open(path, { cookie })).body).toContain('Which piece?')
    expect((await open(path, { cookie: `${cookie}x` })).status).toBe(401)
    for (let i = 0; i < 5; i++) await give(path, `guess ${String(i)}`)
    const late = await give(path, 'low tide at noon')
    expect([late.status, late.body.includes('too many wrong passwords')]).toEqual([429, true])
  })

  it('has a password of some length, and never tells it again', async () => {
    const { id } = await save(content([]))
    const refused = await flimbo.refused('POST', links(id), { until: '2099-12-31', password: 'short' })
    expect(refused.fields?.[0]?.message).toContain('at least 8')
    const { body } = await flimbo.ask<ReportLink>('POST', links(id), {
      until: '2099-12-31',
      password: 'long enough',
    })
    expect(JSON.stringify(body)).not.toContain('long enough')
  })

  it('takes nothing for a report that is none: odd addresses, methods and bodies', async () => {
    const { path } = await share({ until: '2099-12-31', password: 'low tide at noon' })
    for (const each of [
      '%00',
      '..%2f..%2fapi',
      'fonts/..%2f..%2fpackage.json',
      'fonts/next.woff',
      'a'.repeat(3000),
    ]) {
      const { status, body } = await open(`/shared-report/${each}`)
      expect([each.slice(0, 20), status >= 400, String(body).includes('Which piece?')]).toEqual([
        each.slice(0, 20),
        true,
        false,
      ])
    }
    expect((await open(`${path}/exe`)).status).toBe(410)
    const send = (body: string, type = 'application/x-www-form-urlencoded') =>
      http('POST', flimbo.ports.office, path, { 'content-type': type }, body)
    expect((await send(`password=${'x'.repeat(100_000)}`)).status).toBe(413)
    expect((await send('password[a]=low tide at noon')).status).toBe(403)
    expect((await send('{"password":"low tide at noon"}', 'application/json')).status).toBe(403)
    expect((await http('PUT', flimbo.ports.office, path)).status).toBeGreaterThanOrEqual(400)
  })

  it('has its fonts for a page in any frame, and no others', async () => {
    const font = await open('/shared-report/fonts/latin.woff2')
    expect([font.status, font.headers['access-control-allow-origin']]).toEqual([200, '*'])
    expect(font.headers['cache-control']).toContain('immutable')
  })

  it('is made once for many who open it at the same time', async () => {
    const { path } = await share({ until: '2099-12-31' })
    const pages = await Promise.all(Array.from({ length: 20 }, () => open(path)))
    const madeAt = new Set(pages.map(({ body }) => /Made on [^<]+/.exec(body)?.[0]))
    expect([new Set(pages.map(({ status }) => status)), madeAt.size]).toEqual([new Set([200]), 1])
    // Each answer's own policy lets its own style sheet in.
    for (const { body, headers } of pages) {
      const nonce = /<style nonce="([^"]+)">/.exec(body)?.[1] ?? 'none'
      expect(headers['content-security-policy']).toContain(`'nonce-${nonce}'`)
    }
    expect(new Set(pages.map(({ body }) => /nonce="([^"]+)"/.exec(body)?.[1])).size).toBe(20)
  })
})

describe('a report in the look of a house style', () => {
  it('has its logo and its colour, page and PDF alike, and is plain once that is gone', async () => {
    const gull =
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><rect width="40" height="20"/></svg>'
    const { sum } = (await flimbo.ask<{ sum: string }>('POST', '/api/files?name=gull.svg', Buffer.from(gull)))
      .body
    const plate = { plate: 'none', plateTint: { rgb: '#ffffff', cmyk: null }, cleared: true }
    const look = {
      ...PLAIN_LOOK,
      ink: { kind: 'solid', tint: { rgb: '#7b3f68', cmyk: null } },
      logo: { file: sum, share: 0.2, margin: 1, ...plate },
    }
    const style = (await flimbo.ask<{ id: number }>('POST', '/api/house-styles', { name: 'Plum', look })).body
    const styled = content(BLOCKS, { styleId: style.id })
    const page = async () =>
      (await flimbo.ask<{ markup: string }>('POST', '/api/report-pages', styled)).body.markup
    expect(await page()).toMatch(/#7b3f68[\s\S]*<img src="data:image\/png;base64,/)
    const { id } = await save(styled)
    expect(Buffer.from(await file(id, 'pdf')).includes('/Subtype /Image')).toBe(true)
    await flimbo.ask('DELETE', `/api/house-styles/${String(style.id)}`)
    const plain = await flimbo.ask<ReportData>('GET', `/api/reports/${String(id)}/data`)
    expect(plain.status).toBe(200)
    expect(Buffer.from(await file(id, 'pdf')).includes('/Subtype /Image')).toBe(false)
  })
})
