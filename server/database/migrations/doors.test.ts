import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { DataSource } from 'typeorm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { pageContent } from '@flimbo/core/pages'
import { NO_RULES, openLife } from '@flimbo/core/routing'
import { scanMover } from '../../scans/queries.ts'
import { migrate, openDatabase, tables } from '../index.ts'
import { MIGRATIONS } from './index.ts'
import { Doors1764500000000 } from './doors.ts'

const directory = mkdtempSync(join(tmpdir(), 'flimbo-migration-'))
const file = join(directory, 'flimbo.sqlite')
const NOW = Date.now()
const YESTERDAY = NOW - 30 * 3_600_000

/** Puts a row into a table of that time; what is not given and must be there is nothing, or one. */
function put(database: Sqlite.Database, table: string, given: Record<string, unknown>): void {
  const columns = database.prepare(`PRAGMA table_info(${table})`).all() as {
    name: string
    type: string
    notnull: number
    pk: number
  }[]
  const row = Object.fromEntries(
    columns.flatMap(({ name, type, notnull, pk }): [string, unknown][] => {
      if (name in given) return [[name, given[name]]]
      return notnull === 0 || (pk > 0 && type === 'INTEGER') ? [] : [[name, type === 'TEXT' ? '' : 1]]
    }),
  )
  const names = Object.keys(row)
  database
    .prepare(
      `INSERT INTO ${table} (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`,
    )
    .run(...Object.values(row))
}

const { once: _once, ...oldLife } = openLife('UTC')
const limited = JSON.stringify({
  ...NO_RULES,
  life: { ...oldLife, limit: 5, countedFrom: 0, from: '9999-02-28T10:00' },
})

/** Scans as they are read, whichever way they are stored. */
const SCANS =
  'SELECT id, at, codeId, routeId, outcome, exit, variant, apart, language, visitor FROM scans ORDER BY id'
let before: unknown[] = []

beforeAll(async () => {
  const old = new DataSource({
    type: 'better-sqlite3',
    database: file,
    migrations: MIGRATIONS.slice(0, MIGRATIONS.indexOf(Doors1764500000000)),
  })
  await old.initialize()
  await old.runMigrations({ transaction: 'each' })
  await old.destroy()
  const database = new Sqlite(file)
  database.pragma('foreign_keys = OFF')
  put(database, 'workspaces', { id: 1, name: 'Saltmarsh Line', zone: 'Europe/Berlin' })
  put(database, 'clients', { id: 1, workspaceId: 1 })
  put(database, 'people', { id: 1, workspaceId: 1, role: 'admin' })
  put(database, 'domains', { id: 2, host: 'go.saltmarsh.example', state: 'ready', workspaceId: 1 })
  put(database, 'campaigns', {
    id: 1,
    workspaceId: 1,
    clientId: 1,
    zone: 'UTC',
    startsOn: '0026-07-01',
    endsOn: '9999-12-31',
  })
  put(database, 'routes', {
    id: 1,
    campaignId: 1,
    state: 'live',
    rules: limited,
    draft: JSON.stringify({ rules: JSON.parse(limited) as unknown }),
    expectations: '[]',
  })
  put(database, 'pages', {
    campaignId: 1,
    name: 'Tides',
    title: 'Tides <today>',
    text: 'Mind the mud.\n\nBoats leave at noon.',
    links: JSON.stringify([{ label: 'Table', address: 'https://saltmarsh.example/tides' }]),
  })
  put(database, 'routes', {
    id: 2,
    campaignId: 1,
    state: 'live',
    rules: JSON.stringify(NO_RULES),
    expectations: '[]',
  })
  put(database, 'codes', {
    id: 1,
    campaignId: 1,
    routeId: 1,
    domainId: 1,
    slug: 'PIER',
    state: 'live',
    level: 'M',
    liveOn: '2026-07-01',
    extra: '{}',
  })
  put(database, 'revisions', {
    id: 1,
    of: 'route',
    subjectId: 1,
    number: 1,
    before: null,
    after: JSON.stringify({ rules: JSON.parse(limited) as unknown }),
  })
  put(database, 'places', { id: 1 })
  put(database, 'agents', { id: 1 })
  const scan = (at: number, more: object) => {
    put(database, 'scans', {
      at,
      codeId: 1,
      routeId: 1,
      outcome: 'redirect',
      placeId: 1,
      agentId: 1,
      apart: null,
      exit: 'otherwise',
      ...more,
    })
  }
  scan(YESTERDAY, {})
  scan(NOW, {})
  scan(NOW, { apart: 'onward' })
  scan(NOW, { apart: 'crawler' })
  scan(NOW, { exit: 'full' })
  scan(NOW, { exit: 'before' })
  scan(NOW, { routeId: 2, visitor: '0123456789abcdef', language: 'nl', variant: 'b' })
  before = database.prepare(SCANS).all()
  database.close()
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const rows = (sql: string): unknown[] => {
  const database = new Sqlite(file, { readonly: true })
  try {
    return database.prepare(sql).all()
  } finally {
    database.close()
  }
}

describe('an installation from before front doors were processes', () => {
  beforeAll(() => migrate(file))

  it('keeps what its limited routes have let through, in all and today', () => {
    expect(rows('SELECT routeId, maxTotal, maxDaily, total, today FROM limits')).toEqual([
      { routeId: 1, maxTotal: 5, maxDaily: null, total: 3, today: 2 },
    ])
  })

  it('counts each scan of a visitor, as it did', () => {
    const once = (column: string, table: string) =>
      rows(`SELECT json_extract(${column}, '$.life.once') AS once FROM ${table} WHERE id = 1`)
    expect([
      once('rules', 'routes'),
      rows("SELECT json_extract(draft, '$.rules.life.once') AS once FROM routes WHERE id = 1"),
      rows(`SELECT json_extract("after", '$.rules.life.once') AS once FROM revisions`),
    ]).toEqual([[{ once: 0 }], [{ once: 0 }], [{ once: 0 }]])
  })

  it('has its days within the calendar, and those that were are as they were', () => {
    expect(rows('SELECT startsOn, endsOn FROM campaigns')).toEqual([
      { startsOn: '1970-01-01', endsOn: '2200-12-31' },
    ])
    expect(rows('SELECT liveOn, downOn FROM codes')).toEqual([{ liveOn: '2026-07-01', downOn: null }])
    expect(rows("SELECT json_extract(rules, '$.life.from') AS day FROM routes WHERE id = 1")).toEqual([
      { day: '2200-02-28T10:00' },
    ])
  })

  it('keeps its domains, scans and codes, is sound, and opens again and again', async () => {
    for (let time = 0; time < 2; time++) await (await openDatabase(file)).close()
    expect(rows('SELECT host, state FROM domains WHERE id = 2')).toEqual([
      { host: 'go.saltmarsh.example', state: 'ready' },
    ])
    expect(rows(SCANS)).toEqual(before)
    expect(rows('SELECT codeId FROM scanned_codes')).toEqual([{ codeId: 1 }])
    expect(rows('PRAGMA integrity_check')).toEqual([{ integrity_check: 'ok' }])
    expect(rows('PRAGMA foreign_key_check')).toEqual([])
  })

  it('reads the same scans while they are moved to where they take less room, and afterwards', () => {
    const database = new Sqlite(file)
    const mover = scanMover(database, 2)
    const left = [mover.left()]
    do {
      expect(rows(SCANS)).toEqual(before)
      left.push(mover.left())
    } while (mover.step())
    expect(left).toEqual([6, 6, 4, 2, 1])
    expect(mover.left()).toBe(0)
    expect(rows(SCANS)).toEqual(before)
    expect(rows("SELECT name FROM sqlite_master WHERE name = 'scans_before'")).toEqual([])
    database.close()
  })

  it('make pages of a heading, a text and links into parts, live as they were', async () => {
    const database = await openDatabase(file)
    const [page] = await database.read.find(tables.pages)
    const revision = await database.read.findOneByOrFail(tables.pageRevisions, { pageId: page?.id ?? 0 })
    expect(pageContent.parse(page?.live)).toEqual(page?.live)
    expect([page?.title, page?.revisionId, revision.content]).toEqual([
      'Tides <today>',
      revision.id,
      page?.live,
    ])
    expect(page?.live?.parts.map(({ kind }) => kind)).toEqual(['heading', 'text', 'link'])
    await database.close()
  })
})
