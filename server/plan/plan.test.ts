import { setTimeout as pause } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import ExcelJS from 'exceljs'
import type { Campaign } from '@flimbo/core/campaigns'
import type { Code } from '@flimbo/core/codes'
import type { ImportLine, PlanImport } from '@flimbo/core/plan'
import { runningFlimbo, type Running } from '../tests/running.ts'

interface Page<T> {
  rows: T[]
  total: number
}

let flimbo: Running
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
})
afterAll(() => flimbo.close())

const BYTES = { 'content-type': 'application/octet-stream' }
const handIn = async (campaign: Campaign, file: string | Uint8Array, name = 'plan.csv') => {
  const bytes = typeof file === 'string' ? new TextEncoder().encode(file) : file
  return (
    await flimbo.ask<PlanImport>(
      'POST',
      `/api/imports?campaignId=${String(campaign.id)}&name=${name}`,
      bytes,
      { ...BYTES, 'content-length': String(bytes.length) },
    )
  ).body
}
const linesOf = async ({ id }: PlanImport, query = '') =>
  (await flimbo.ask<Page<ImportLine>>('GET', `/api/imports/${String(id)}/lines?pageSize=500${query}`)).body
    .rows
async function run({ id }: PlanImport, lines: 'all' | 'good' = 'all'): Promise<PlanImport> {
  await flimbo.ask('POST', `/api/imports/${String(id)}/runs`, { lines })
  for (;;) {
    const { body } = await flimbo.ask<PlanImport>('GET', `/api/imports/${String(id)}`)
    if (body.stage !== 'running') return body
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
}
const plan = async (campaign: Campaign) =>
  (
    await flimbo.ask<Page<Code>>(
      'GET',
      `/api/codes?campaignId=${String(campaign.id)}&pageSize=500&sort=createdAt`,
    )
  ).body.rows
const csvOf = async (campaign: Campaign) =>
  (await flimbo.ask<string>('GET', `/api/plan.csv?campaignId=${String(campaign.id)}`)).body

const FILE = [
  'Item;Placement;utm_medium;utm_source;Landing page;Printed size;Run;Start date;GPS',
  'A-1;Poster, north;print;poster;https://saltmarsh.example/a;6 cm;1.500;1.7.2026;53.70, 7.15',
  'A-2;"Poster ""south""";print;Poster;https://saltmarsh.example/a;60;;;',
  ';Leaflet;;leaflet;https://saltmarsh.example/b;;;;',
].join('\r\n')

describe('importing a plan', () => {
  it('shows first what every line would do, then does it, and a second time does nothing', async () => {
    const campaign = await flimbo.campaign('Import')
    const read = await handIn(campaign, FILE)
    expect(read).toMatchObject({
      kind: 'text',
      delimiter: ';',
      headings: true,
      stage: 'ready',
      counts: { create: 2, change: 0, same: 0, refuse: 1 },
    })
    expect(read.columns.map(({ to }) => to)).toEqual([
      'key',
      'name',
      'medium',
      'source',
      'destination',
      'sizeMm',
      'printRun',
      'liveOn',
      'coordinates',
    ])
    const [, second, third] = await linesOf(read)
    expect(second?.findings.map(({ kind }) => kind)).toContain('letter-case')
    expect(third).toMatchObject({
      line: 3,
      verdict: 'refuse',
      why: ['Medium: Give a medium, such as print.'],
    })
    expect(await plan(campaign)).toEqual([])

    expect(await run(read)).toMatchObject({
      stage: 'failed',
      sentence: expect.stringContaining('1 line is refused') as string,
    })
    expect(await plan(campaign)).toEqual([])
    expect(await run(await handIn(campaign, FILE), 'good')).toMatchObject({
      stage: 'done',
      sentence: '2 created, 0 changed.',
    })
    expect(await plan(campaign)).toMatchObject([
      {
        key: 'A-1',
        name: 'Poster, north',
        sizeMm: 60,
        printRun: 1500,
        liveOn: '2026-07-01',
        latitude: 53.7,
        longitude: 7.15,
        routeName: 'Poster, north',
        version: 1,
      },
      { key: 'A-2', name: 'Poster "south"', sizeMm: 60, printRun: null, liveOn: null },
    ])
    expect((await handIn(campaign, FILE)).counts).toMatchObject({ create: 0, change: 0, same: 2, refuse: 1 })
  })

  it('changes what has changed, by key, and says what it was', async () => {
    const campaign = await flimbo.campaign('Changes')
    await run(await handIn(campaign, FILE), 'good')
    const [first] = await plan(campaign)
    const read = await handIn(
      campaign,
      `Key,Source,Destination\nA-1,kiosk-poster,https://saltmarsh.example/new\n`,
    )
    expect((await linesOf(read))[0]).toMatchObject({
      verdict: 'change',
      changes: [
        { column: 'Destination', was: 'https://saltmarsh.example/a', is: 'https://saltmarsh.example/new' },
        { column: 'Source', was: 'poster', is: 'kiosk-poster' },
      ],
    })
    expect((await run(read)).sentence).toBe('0 created, 1 changed.')
    expect((await flimbo.scan(`/${first?.slug ?? ''}`)).headers.location).toBe(
      'https://saltmarsh.example/new?utm_source=kiosk-poster&utm_medium=print&utm_campaign=summer-26',
    )
    const { body } = await flimbo.ask<Page<unknown>>('GET', `/api/codes/${String(first?.id)}/revisions`)
    expect(body.total).toBe(2)
  })

  it('what is exported comes in again as the same rows, in CSV and in a workbook, formulas and all', async () => {
    const campaign = await flimbo.campaign('There and back')
    const names = ['=1+1', "'=2", '-3', '@x', '+49', 'Plain, "quoted"', 'Zwei; Öl', "'", '  spaced']
    for (const [i, name] of names.entries())
      await flimbo.code(campaign.id, {
        name,
        content: `c${String(i)}`,
        cost: i / 4,
        key: `k${String(i)}`,
        viewingM: 0.5,
        downOn: '2026-12-31',
      })
    const csv = await csvOf(campaign)
    expect(csv.startsWith('\ufeffKey,Piece,Route,Destination,Own destination,Medium')).toBe(true)
    // No cell begins with what spreadsheets run (common practice, no published source).
    expect(
      csv
        .split('\r\n')
        .slice(1)
        .flatMap((line) => line.split(','))
        .filter((cell) => /^"?[=+@]/.test(cell)),
    ).toEqual([])
    expect((await handIn(campaign, csv)).counts).toMatchObject({
      create: 0,
      change: 0,
      refuse: 0,
      same: names.length,
    })
    const { body } = await flimbo.ask<Buffer>('GET', `/api/plan.xlsx?campaignId=${String(campaign.id)}`)
    expect((await handIn(campaign, body, 'plan.xlsx')).counts).toMatchObject({
      create: 0,
      change: 0,
      refuse: 0,
      same: names.length,
    })
    const workbook = new ExcelJS.Workbook()
    await workbook.xlsx.load(body as never)
    expect(workbook.worksheets[0]?.getRow(2).getCell(2).value).toBe('=1+1')

    const other = await flimbo.campaign('Elsewhere')
    const elsewhere = await handIn(other, csv.replaceAll(/,[A-Z0-9]{6},M,/g, ',,M,'))
    expect(await run(elsewhere)).toMatchObject({ stage: 'done' })
    const strip = ({ name, medium, source, content, cost, key, viewingM, downOn, destination }: Code) => ({
      name,
      medium,
      source,
      content,
      cost,
      key,
      viewingM,
      downOn,
      destination,
    })
    expect((await plan(other)).map(strip)).toEqual((await plan(campaign)).map(strip))
  })

  it('reads files in the encodings spreadsheets write, and remembers what headings stood for', async () => {
    const campaign = await flimbo.campaign('Encodings')
    const text = 'Was;Medium;Source;Ziel\nGroßes Plakat;print;plakat;https://saltmarsh.example/a\n'
    const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')])
    const latin = Buffer.from(text, 'latin1')
    const read = await handIn(campaign, utf16)
    expect([read.encoding, read.columns.map(({ to }) => to)]).toEqual([
      'utf-16le',
      [null, 'medium', 'source', null],
    ])
    const mapping = ['name', 'medium', 'source', 'destination']
    const { body } = await flimbo.ask<PlanImport>('PATCH', `/api/imports/${String(read.id)}`, { mapping })
    expect(body.counts).toMatchObject({ create: 1, refuse: 0 })
    await run(body)
    const again = await handIn(campaign, latin)
    expect([again.encoding, again.columns.map(({ to }) => to)]).toEqual(['windows-1252', mapping])
    expect((await plan(campaign))[0]?.name).toBe('Großes Plakat')
    expect(
      (await flimbo.refused('PATCH', `/api/imports/${String(again.id)}`, { mapping: ['name', 'name'] }))
        .detail,
    ).toContain('Two columns')
  })

  it('remembers how a file was read that is not what it looks like', async () => {
    const campaign = await flimbo.campaign('Cyrillic')
    const file = (name: string) =>
      Buffer.concat([
        Buffer.from(`Piece|Medium|Source|Destination\n`),
        Buffer.from(name, 'latin1'),
        Buffer.from('|print|s|https://saltmarsh.example/a\n'),
      ])
    // “Плакат” in windows-1251 (WHATWG Encoding Standard, index windows-1251).
    const poster = '\xcf\xeb\xe0\xea\xe0\xf2'
    const first = await handIn(campaign, file(poster))
    expect([first.encoding, first.delimiter]).toEqual(['windows-1252', '|'])
    const { body } = await flimbo.ask<PlanImport>('PATCH', `/api/imports/${String(first.id)}`, {
      encoding: 'windows-1251',
    })
    expect(await run(body)).toMatchObject({ stage: 'done' })
    expect((await plan(campaign))[0]?.name).toBe('Плакат')
    expect((await handIn(campaign, file(`${poster} 2`))).encoding).toBe('windows-1251')
    expect((await handIn(campaign, 'Piece,Medium\nÖl,print\n')).encoding).toBe('utf-8')
  })

  it.each([
    ['a quotation mark that is never closed', 'Piece,Medium\n"open,print\n', 'never closed'],
    ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 0, 0]), 'no table'],
    ['a damaged workbook', Buffer.from('PK\u0003\u0004 and nothing after it'), 'damaged'],
    ['nothing', '', 'empty'],
    ['blank lines', '\n\n ,,\n', 'nothing in this file'],
  ])('refuses %s with a sentence', async (_name, file, sentence) => {
    const campaign = await flimbo.campaign('Hostile')
    const bytes = Buffer.from(file)
    expect(
      (
        await flimbo.refused('POST', `/api/imports?campaignId=${String(campaign.id)}&name=x`, bytes, {
          ...BYTES,
          'content-length': String(bytes.length),
        })
      ).detail,
    ).toContain(sentence)
  })

  it('takes a cell of a megabyte for what it is: too long, with the line it stands in', async () => {
    const campaign = await flimbo.campaign('Long')
    const read = await handIn(
      campaign,
      `Piece,Medium,Source,Destination\n"${'x\r\n'.repeat(350_000)}",print,s,https://saltmarsh.example/\nShort,print,s,https://saltmarsh.example/\n`,
    )
    expect(await linesOf(read)).toMatchObject([
      { verdict: 'refuse', why: [expect.stringContaining('no longer than 200')] },
      { verdict: 'create' },
    ])
  })

  it('imports ten thousand lines, tells how far it is, and takes everything back when it is stopped', async () => {
    const campaign = await flimbo.campaign('Large')
    const file = `Key,Piece,Medium,Source,Content,Destination\n${Array.from({ length: 10_000 }, (_, i) => `k${String(i)},Card ${String(i)},print,card,c-${String(i)},https://saltmarsh.example/${String(i % 50)}`).join('\n')}`
    const stopped = await handIn(campaign, file)
    await flimbo.ask('POST', `/api/imports/${String(stopped.id)}/runs`, { lines: 'all' })
    await flimbo.ask('DELETE', `/api/imports/${String(stopped.id)}`)
    let state = stopped
    while (state.stage === 'ready' || state.stage === 'running') {
      await pause(10)
      state = (await flimbo.ask<PlanImport>('GET', `/api/imports/${String(stopped.id)}`)).body
    }
    expect([state.stage, (await plan(campaign)).length]).toEqual(['cancelled', 0])
    // Meanwhile phones are answered, and none of their scans is lost.
    const code = await flimbo.code((await flimbo.campaign('Meanwhile')).id, { slug: 'meanwhile' })
    const read = await handIn(campaign, file)
    let going = true
    const scanned = (async () => {
      const statuses: number[] = []
      while (going) {
        statuses.push((await flimbo.scan('/meanwhile')).status)
        await pause(10)
      }
      return statuses
    })()
    expect(await run(read)).toMatchObject({ stage: 'done', done: 10_000, total: 10_000 })
    going = false
    const statuses = await scanned
    expect(statuses.filter((status) => status !== 302)).toEqual([])
    expect(flimbo.rows<{ n: number }>('SELECT count(*) AS n FROM scans WHERE codeId = ?', code.id)).toEqual([
      { n: statuses.length },
    ])
    const counts = flimbo.rows<{ codes: number; slugs: number; links: number }>(
      'SELECT count(*) AS codes, count(DISTINCT slug) AS slugs, (SELECT count(*) FROM short_links l JOIN codes d ON d.id = l.codeId WHERE d.campaignId = c.campaignId) AS links FROM codes c WHERE campaignId = ?',
      campaign.id,
    )
    expect(counts).toEqual([{ codes: 10_000, slugs: 10_000, links: 10_000 }])
  }, 60_000)
})

describe('exporting', () => {
  it('every short link, those of renamed pieces too', async () => {
    const campaign = await flimbo.campaign('Links')
    const code = await flimbo.code(campaign.id, { slug: 'before' })
    await flimbo.ask('PATCH', `/api/codes/${String(code.id)}`, { version: 1, slug: 'after' })
    const { body } = await flimbo.ask<string>('GET', `/api/links.csv?campaignId=${String(campaign.id)}`)
    const lines = body.trim().split('\r\n').slice(1)
    expect(lines.map((line) => line.split(',').slice(0, 2).join(' '))).toEqual([
      'http://go.saltmarsh.example/AFTER yes',
      'http://go.saltmarsh.example/BEFORE "replaced',
    ])
    expect([(await flimbo.scan('/before')).status, (await flimbo.scan('/AFTER')).status]).toEqual([302, 302])
  })
})

describe('views and choices', () => {
  it('are kept, replaced by name, and forgotten', async () => {
    const value = {
      columns: ['name', 'medium'],
      sort: 'name',
      order: 'asc',
      group: 'medium',
      filter: { finding: 'look-alike' },
    }
    const { body: saved } = await flimbo.ask<{ id: number }>('POST', '/api/views', { name: 'To fix', value })
    const { body: again } = await flimbo.ask<{ id: number }>('POST', '/api/views', {
      name: 'To fix',
      value: { ...value, group: '' },
    })
    expect(again.id).toBe(saved.id)
    expect((await flimbo.ask('GET', '/api/views')).body).toMatchObject({
      rows: [{ name: 'To fix', value: { group: '' } }],
    })
    await flimbo.ask('DELETE', `/api/views/${String(saved.id)}`)
    expect((await flimbo.ask('GET', '/api/views')).body).toEqual({ rows: [] })
    await flimbo.ask('PATCH', '/api/preferences', { planColumns: ['name'] })
    expect((await flimbo.ask('PATCH', '/api/preferences', { planWidths: { name: 200 } })).body).toEqual({
      planColumns: ['name'],
      planWidths: { name: 200 },
    })
  })
})
