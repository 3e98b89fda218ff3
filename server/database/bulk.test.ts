import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DEFAULT_PIECE } from '@flimbo/core/codes'
import { plainRoute } from '../routing/index.ts'
import { OWNER } from '../tests/running.ts'
import { setUpWorkspace } from '../workspace/index.ts'
import {
  findAmong,
  insertMany,
  reserveIds,
  openDatabase,
  tables,
  updateMany,
  type CodeRow,
  type Database,
} from './index.ts'

let directory: string
let database: Database

beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-bulk-'))
  database = await openDatabase(join(directory, 'flimbo.sqlite'))
  await setUpWorkspace(database, OWNER)
  await database.write(async (manager) => {
    await manager.insert(tables.campaigns, {
      workspaceId: 1,
      clientId: 1,
      name: 'A',
      zone: 'UTC',
      utmCampaign: 'a',
      version: 1,
      createdAt: 0,
    })
    await insertMany(manager, tables.routes, [
      {
        ...plainRoute({ campaignId: 1, name: 'R', destination: 'https://saltmarsh.example', note: '' }, 0),
        id: 1,
      },
    ])
  })
})
afterEach(async () => {
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

const row = (id: number, more: Partial<CodeRow> = {}): CodeRow => ({
  ...DEFAULT_PIECE,
  id,
  campaignId: 1,
  routeId: 1,
  domainId: 1,
  slug: `S${String(id)}`,
  name: `Piece ${String(id)}`,
  medium: 'print',
  source: 's',
  state: 'live',
  archivedAt: null,
  version: 1,
  createdAt: id,
  ...more,
})

describe('rows in bulk', () => {
  it.each([1, 99, 100, 101, 250])('of %i are stored as they are, each once', async (count) => {
    const rows = Array.from({ length: count }, (_, i) => row(i + 1))
    await database.write((manager) => insertMany(manager, tables.codes, rows))
    expect(await database.read.find(tables.codes, { order: { id: 'asc' } })).toEqual(rows)
  })

  it('keep every kind of value: nothing, figures, texts with quotes, and parameters of the house’s own', async () => {
    const odd = row(1, {
      name: `O'Brien "x" ; DROP TABLE codes; --`,
      extra: { region: 'ö', 'a-b': '' },
      latitude: -0.5,
      longitude: 179.999,
      viewingM: 1.5,
      printRun: 0,
      cost: 12.34,
      liveOn: '2026-07-01',
      downOn: null,
      archivedAt: 5,
      sizeMm: 42.5,
    })
    await database.write((manager) => insertMany(manager, tables.codes, [odd]))
    expect(await database.read.findOneBy(tables.codes, { id: 1 })).toEqual(odd)
  })

  it('are changed by number, and others are left', async () => {
    await database.write((manager) => insertMany(manager, tables.codes, [row(1), row(2), row(3)]))
    await database.write((manager) =>
      updateMany(manager, tables.codes, [
        row(1, { source: 'x', extra: { a: 'b' } }),
        row(3, { place: 'Pier', version: 9 }),
      ]),
    )
    const stored = await database.read.find(tables.codes, { order: { id: 'asc' } })
    expect(stored).toEqual([
      row(1, { source: 'x', extra: { a: 'b' } }),
      row(2),
      row(3, { place: 'Pier', version: 9 }),
    ])
  })

  it('are stored all or not at all', async () => {
    const twice = database.write(async (manager) => {
      await insertMany(manager, tables.codes, [row(1), row(2)])
      await insertMany(manager, tables.codes, [row(3, { key: 'k' }), row(4, { key: 'k' })])
    })
    await expect(twice).rejects.toThrow('UNIQUE')
    expect(await database.read.count(tables.codes)).toBe(0)
  })

  it('are found by more values than one statement takes, each once', async () => {
    await database.write((manager) =>
      insertMany(manager, tables.codes, [row(1), row(2), row(40_000, { key: 'far' })]),
    )
    // SQLite takes 32,766 values in a statement (its limit SQLITE_MAX_VARIABLE_NUMBER).
    const many = [2, ...Array.from({ length: 40_000 }, (_, i) => i + 1)]
    expect(
      (await findAmong(database.read, tables.codes, 'id', many)).map(({ id }) => id).sort((a, b) => a - b),
    ).toEqual([1, 2, 40_000])
    expect(
      (await findAmong(database.read, tables.codes, 'id', many, { key: 'far' })).map(({ id }) => id),
    ).toEqual([40_000])
    expect(await findAmong(database.read, tables.codes, 'id', [])).toEqual([])
  })

  it('get numbers nobody had', async () => {
    const reserve = (count: number) => database.write((manager) => reserveIds(manager, tables.codes, count))
    expect([await reserve(3), await reserve(2), await reserve(0)]).toEqual([1, 4, 6])
    await database.write((manager) => insertMany(manager, tables.codes, [row(70)]))
    expect(await reserve(1)).toBe(71)
    // What was given out is not given out again, though it was not used.
    await expect(
      database.write(async (manager) => {
        await reserveIds(manager, tables.codes, 10)
        await manager.delete(tables.codes, { id: 70 })
      }),
    ).resolves.toBeUndefined()
    expect(await reserve(1)).toBe(82)
  })
})
