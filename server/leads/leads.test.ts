import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import ExcelJS from 'exceljs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Job } from '@flimbo/core/jobs'
import type { Lead, LeadSummary } from '@flimbo/core/leads'
import { newQuestion, type Question } from '@flimbo/core/forms'
import { newPart, type Page } from '@flimbo/core/pages'
import { readTable } from '@flimbo/core/plan'
import { openDatabase } from '../database/index.ts'
import { answerFiles } from './answerFiles.ts'
import { keepLeads } from './retention.ts'
import { storeLead } from '../tests/leadSample.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
let page: Page
const QUESTIONS: Question[] = [
  { ...newQuestion('short', 'name'), label: { en: 'Your name' }, name: 'Name' },
  { ...newQuestion('mail', 'mail'), label: { en: 'Your mail' } },
  {
    ...newQuestion('one', 'boat'),
    label: { en: 'Boat' },
    choices: [{ key: 'a', label: { en: 'Lark Holm' } }],
  },
  { ...newQuestion('file', 'photo'), label: { en: 'Photo' } },
]
let codeId: number
let routeId: number
let revision = 0
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign()).id
  page = await flimbo.page(campaignId, 'Pass', [{ ...newPart('form', 'f'), questions: QUESTIONS }])
  const code = await flimbo.codeTo(campaignId, page.id, 'pass')
  codeId = code.id
  routeId = code.routeId
  revision = page.revisionId
})
afterAll(() => flimbo.close())

const store = (given: Parameters<typeof storeLead>[1]) =>
  storeLead(flimbo.file, { campaignId, pageId: page.id, pageRevisionId: revision, codeId, routeId, ...given })
interface Found {
  rows: LeadSummary[]
  total: number
  states: Record<string, number>
}
const list = async (query: string) => (await flimbo.ask<Found>('GET', `/api/leads?${query}`)).body
const get = async (id: number) => (await flimbo.ask<Lead>('GET', `/api/leads/${String(id)}`)).body

describe('leads', () => {
  it('are listed, the newest first, found by words, state, piece and days, held ones apart', async () => {
    const now = Date.now()
    const first = store({
      at: now - 5000,
      title: 'Ada',
      search: 'ada\nlark holm\n50% \\ _',
      email: 'ada@a.example',
    })
    const second = store({ at: now - 4000, title: 'Bo', search: 'bo' })
    store({ at: now - 3000, title: 'Program', held: 'trap' })
    store({ at: now - 2000, title: 'Rehearsal', apart: 'test' })
    const of = `campaignId=${String(campaignId)}&order=desc`
    expect((await list(of)).rows.map(({ title }) => title)).toEqual(['Bo', 'Ada'])
    expect((await list(`${of}&q=LARK`)).rows.map(({ id }) => id)).toEqual([first])
    expect((await list(`${of}&q=${encodeURIComponent('50% \\ _')}`)).total).toBe(1)
    expect((await list(`${of}&q=${encodeURIComponent('%')}`)).total).toBe(1)
    expect((await list(`${of}&held=yes`)).rows.map(({ title }) => title)).toEqual(['Program'])
    expect((await list(`${of}&from=2020-01-01&to=2020-01-02`)).total).toBe(0)
    expect((await list(`codeId=${String(codeId)}&state=new`)).total).toBe(2)
    await flimbo.ask('POST', '/api/lead-changes', {
      ids: [second],
      set: { state: 'done', tags: ['harbour'] },
    })
    expect((await list(of)).states).toEqual({ new: 1, done: 1 })
    expect((await list(`${of}&tag=harbour`)).rows.map(({ id }) => id)).toEqual([second])
    for (const query of ['from=2026-02-02&to=2026-02-01', 'to=9999-12-31', 'state=Lost!', 'pageSize=100000'])
      expect((await flimbo.refused('GET', `/api/leads?${query}`)).status).toBe(422)
  })

  it('show their answers in the words of the form they were shown, their way, and the person’s others', async () => {
    const answers = { name: 'Ada', mail: 'ada@b.example', boat: { chosen: ['a'] }, gone: 'kept' }
    const id = store({ answers, email: 'ada@b.example', title: 'Ada', phone: '+4949315550142' })
    const other = store({ email: 'x@b.example', phone: '+4949315550142', title: 'Ada again' })
    const lead = await get(id)
    expect(lead.answers.map(({ title, text }) => [title, text])).toEqual([
      ['Name', 'Ada'],
      ['Your mail', 'ada@b.example'],
      ['Boat', 'Lark Holm'],
      ['gone', '"kept"'],
    ])
    expect([lead.pageName, lead.others.map((each) => each.id)]).toEqual(['Pass', [other]])
    const noted = await flimbo.ask<Lead>('POST', `/api/leads/${String(id)}/notes`, { text: ' Called back ' })
    expect(noted.body.notes).toMatchObject([{ text: 'Called back' }])
  })

  it('are changed many at once, and back', async () => {
    const ids = [store({}), store({})]
    const { body } = await flimbo.ask<{ were: { id: number; state: string }[] }>(
      'POST',
      '/api/lead-changes',
      {
        ids,
        set: { state: 'open', assignedTo: 1 },
      },
    )
    expect(body.were.map(({ state }) => state)).toEqual(['new', 'new'])
    expect((await get(ids[0] ?? 0)).assignedTo).toBe(1)
    const refused = await flimbo.refused('POST', '/api/lead-changes', { ids, set: { assignedTo: 999 } })
    expect(refused.fields?.[0]?.path).toBe('set.assignedTo')
    const held = store({ held: 'quick' })
    const counts = () =>
      flimbo.rows<{ answers: number }>(`SELECT answers FROM form_counts WHERE pageId = ${String(page.id)}`)[0]
        ?.answers ?? 0
    const before = counts()
    const freed = await flimbo.ask('POST', '/api/lead-changes', { ids: [held], set: { isHeld: false } })
    expect(freed).toMatchObject({ status: 200 })
    expect([(await get(held)).held, counts()]).toEqual([null, before + 1])
  })

  it('are in states of the workspace’s own, of which none is removed while leads are in it', async () => {
    const id = store({})
    const change = (states: object[], version: number) =>
      flimbo.ask('PATCH', '/api/lead-states', { value: { states }, version })
    const first = { key: 'new', name: 'Just in' }
    const ring = { key: 'ring', name: 'To ring' }
    expect((await change([first, ring], 0)).status).toBe(409)
    const rest = ['open', 'done', 'unusable'].map((key) => ({ key, name: key }))
    expect((await change([first, ring, ...rest], 0)).status).toBe(200)
    await flimbo.ask('POST', '/api/lead-changes', { ids: [id], set: { state: 'ring' } })
    expect((await get(id)).state).toBe('ring')
    const gone = await flimbo.refused('POST', '/api/lead-changes', { ids: [id], set: { state: 'lost' } })
    expect(gone.fields?.[0]?.path).toBe('set.state')
    const refused = await flimbo.refused('PATCH', '/api/lead-states', {
      value: { states: [first, ...rest] },
      version: 1,
    })
    expect(refused.detail).toBe('1 lead is in the state “To ring”. Set them to another first.')
    for (const states of [
      [ring],
      [first, first],
      [first, { key: 'a', name: ' ' }],
      [first, { key: 'b', name: 'just in' }],
    ])
      expect((await change(states, 1)).status).toBe(422)
  })

  it('are one person by address and number, through others, and by what somebody said; or parted', async () => {
    const a = store({ email: 'a@one.example' })
    const b = store({ email: 'a@one.example', phone: '+4949315550777' })
    const c = store({ phone: '+4949315550777' })
    const d = store({ title: 'Typed another address' })
    const others = async (id: number) => (await get(id)).others.map((each) => each.id).sort((x, y) => x - y)
    const mark = (ids: number[], personMark: string) =>
      flimbo.ask('POST', '/api/lead-changes', { ids, set: { personMark } })
    expect([await others(a), await others(c), await others(d)]).toEqual([[b, c], [a, b], []])
    await mark([c, d], 'g:join')
    expect([await others(a), await others(d)]).toEqual([
      [b, c, d],
      [a, b, c],
    ])
    await mark([b], 's:part')
    expect([await others(a), await others(b), await others(d)]).toEqual([[], [], [c]])
    expect((await mark([d], 'g:not allowed')).status).toBe(422)
    const file = await flimbo.ask<{ answers: unknown[] }>('GET', `/api/leads/${String(d)}/person.json`)
    expect(file.body.answers).toHaveLength(2)
  })

  it('of one person are one file, and erased everywhere: answers, notes and files; the count stays', async () => {
    const key = 'AAAAAAAAAAAAAAAAAAAAAAAA'
    mkdirSync(join(flimbo.config.dataDir, 'answers'), { recursive: true })
    const path = join(flimbo.config.dataDir, 'answers', key)
    writeFileSync(path, 'a picture')
    const photo = { key, name: 'boat “1”.png', type: 'image/png', bytes: 9 }
    const who = { email: 'gone@a.example', search: 'erase me' }
    const id = store({ ...who, answers: { name: 'Erase Me', photo } })
    store({ ...who, answers: { name: 'Erase Me' } })
    await flimbo.ask('POST', `/api/leads/${String(id)}/notes`, { text: 'Erase Me rang' })
    const file = await flimbo.ask<Buffer>('GET', `/api/leads/${String(id)}/files/${key}`)
    expect([String(file.body), file.headers['content-disposition']?.startsWith('attachment')]).toEqual([
      'a picture',
      true,
    ])
    expect(
      (await flimbo.refused('GET', `/api/leads/${String(id)}/files/..%2F..%2Fflimbo.sqlite`)).status,
    ).toBe(404)
    const person = await flimbo.ask<{ answers: Lead[] }>('GET', `/api/leads/${String(id)}/person.json`)
    const told = Buffer.isBuffer(person.body)
      ? (JSON.parse(String(person.body)) as typeof person.body)
      : person.body
    expect(told.answers).toHaveLength(2)
    const counts = flimbo.rows('SELECT * FROM form_counts')
    const { body } = await flimbo.ask<{ erased: number }>('POST', `/api/leads/${String(id)}/erase`, {})
    expect([body.erased, existsSync(path)]).toEqual([2, false])
    expect(flimbo.rows('SELECT * FROM form_counts')).toEqual(counts)
    for (const { name } of flimbo.rows<{ name: string }>(
      "SELECT name FROM sqlite_master WHERE type = 'table'",
    ))
      expect(JSON.stringify(flimbo.rows(`SELECT * FROM "${name}"`))).not.toMatch(/erase me|gone@a/i)
    expect(flimbo.rows('SELECT leads, files, why FROM erasures')).toEqual([
      { leads: 2, files: 1, why: 'asked' },
    ])
  })

  it('are deleted or anonymised when their form does not keep them any longer, and not a day before', async () => {
    const DAY = 24 * 3_600_000
    const now = Date.parse('2026-07-15T12:00:00Z')
    const kept = async (keptThen: 'delete' | 'anonymise') =>
      flimbo.page(campaignId, keptThen, [
        { ...newPart('form', 'f'), questions: QUESTIONS, keptMonths: 3, keptThen },
      ])
    const [deletes, anonymises] = [await kept('delete'), await kept('anonymise')]
    const answers = { name: 'Old Name', mail: 'old@a.example', boat: { chosen: ['a'], other: 'secret' } }
    const old = now - 110 * DAY
    const given = { answers, title: 'Old Name', search: 'old name', email: 'old@a.example' }
    for (const { id: pageId, revisionId: pageRevisionId } of [deletes, anonymises])
      for (const at of [old, now - 80 * DAY]) store({ ...given, pageId, pageRevisionId, at })
    const database = await openDatabase(flimbo.file)
    const parts = { database, files: answerFiles(flimbo.config.dataDir) }
    expect([await keepLeads(parts, now), await keepLeads(parts, now)]).toEqual([2, 0])
    await database.close()
    const of = ({ id }: Page) =>
      flimbo.rows<{ at: number; title: string; answers: string; email: string }>(
        `SELECT * FROM leads WHERE pageId = ${String(id)} ORDER BY at`,
      )
    expect(of(deletes).map(({ at }) => at)).toEqual([now - 80 * DAY])
    expect(of(anonymises).map(({ title }) => title)).toEqual(['', 'Old Name'])
    expect(JSON.parse(of(anonymises)[0]?.answers ?? '')).toEqual({ boat: { chosen: ['a'] } })
    expect(of(anonymises)[0]?.email).toBe('')
  })

  it('are a file with a column a question, in which nothing is a formula', async () => {
    store({ answers: { name: '=1+1', boat: { chosen: ['a'], other: 'Tern, too' } }, search: 'export' })
    const { body: job } = await flimbo.ask<Job>('POST', '/api/lead-files', { campaignId, q: 'export' })
    expect((await flimbo.ended(job.id)).state).toBe('done')
    const { body } = await flimbo.ask<Buffer>('GET', `/api/jobs/${String(job.id)}/file`)
    const [headings = [], row = []] = readTable(String(body), ',').rows
    const cell = (name: string) => row[headings.indexOf(name)]
    expect([cell('Name'), cell('Boat'), cell('utm_source'), cell('page')]).toEqual([
      "'=1+1",
      'Lark Holm, Tern, too',
      'pier',
      'Pass',
    ])
  })
  it('are a sheet with the columns that were chosen, a column each choice, numbers as such', async () => {
    store({ answers: { name: '=2+2', boat: { chosen: ['a'] } }, search: 'sheet' })
    const look = { format: 'xlsx', columns: ['lead', 'time_utc'], choices: 'split' }
    const { body: job } = await flimbo.ask<Job>('POST', '/api/lead-files', { campaignId, q: 'sheet', look })
    expect((await flimbo.ended(job.id)).state).toBe('done')
    const { body } = await flimbo.ask<Buffer>('GET', `/api/jobs/${String(job.id)}/file`)
    const book = new ExcelJS.Workbook()
    // It asks for a buffer by a type of its own, and takes any.
    await book.xlsx.load(body as never)
    const sheet = book.getWorksheet('Leads')
    const row = (n: number) => (sheet?.getRow(n).values as unknown[]).slice(1)
    expect(row(1)).toEqual(['lead', 'time_utc', 'Name', 'Your mail', 'Boat: Lark Holm', 'Photo'])
    expect(row(2)).toEqual([expect.any(Number), expect.any(Date), '=2+2', undefined, 1])
    expect(sheet?.getCell('C2').type).toBe(ExcelJS.ValueType.String)
    expect(
      (await flimbo.refused('POST', '/api/lead-files', { campaignId, look: { columns: ['password'] } }))
        .status,
    ).toBe(422)
  })
  it('stand in no file any more that was made before somebody was erased', async () => {
    const id = store({ email: 'file@a.example', search: 'in a file' })
    const { body: job } = await flimbo.ask<Job>('POST', '/api/lead-files', { campaignId, q: 'in a file' })
    const path = `/api/jobs/${String(job.id)}`
    expect((await flimbo.ended(job.id)).file).not.toBeNull()
    await flimbo.ask('POST', `/api/leads/${String(id)}/erase`, {})
    expect((await flimbo.ask<Job>('GET', path)).body).toMatchObject({
      file: null,
      sentence: 'The file was removed: somebody in it may have been erased. Download it anew.',
    })
    expect((await flimbo.refused('GET', `${path}/file`)).status).toBe(404)
    expect(existsSync(join(flimbo.config.dataDir, 'jobs', String(job.id)))).toBe(false)
  })

  it('are taken in from elsewhere, each once, and what is wrong is said line by line', async () => {
    const sent = (name: string, mail: string) => [
      ['q.name', [name]],
      ['q.mail', [mail]],
    ]
    const lines = [
      { line: 2, at: '2026-07-03T09:00Z', sent: sent('Paper One', 'One@Paper.example') },
      { line: 3, at: '', sent: sent('Paper Two', 'nowhere') },
      { line: 4, at: '9999-01-01', sent: sent('Paper Three', '') },
      { line: 5, at: '2026-07-03T09:00Z', sent: sent('Paper One', 'One@Paper.example') },
    ]
    const body = { campaignId, pageId: page.id, part: 'f', codeId, lines }
    const take = async () =>
      (
        await flimbo.ask<{ stored: number; known: number; faults: object[] }>(
          'POST',
          '/api/lead-imports',
          body,
        )
      ).body
    expect(await take()).toEqual({
      stored: 1,
      known: 1,
      faults: [
        expect.objectContaining({ line: 3, question: 'Your mail' }),
        expect.objectContaining({ line: 4, question: '' }),
      ],
    })
    expect(await take()).toMatchObject({ stored: 0, known: 2 })
    const { rows } = await list(`campaignId=${String(campaignId)}&q=paper+one`)
    expect(rows).toMatchObject([
      { title: 'Paper One', email: 'one@paper.example', at: Date.parse('2026-07-03T09:00Z') },
    ])
    expect((await flimbo.refused('POST', '/api/lead-imports', { ...body, part: 'gone' })).status).toBe(422)
    expect((await flimbo.refused('POST', '/api/lead-imports', { ...body, lines: [] })).status).toBe(422)
  })
})
