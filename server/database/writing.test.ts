import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import type { EntityManager } from 'typeorm'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { DEFAULT_PIECE } from '@flimbo/core/codes'
import { plainRoute } from '../routing/index.ts'
import { OWNER } from '../tests/running.ts'
import { setUpWorkspace } from '../workspace/index.ts'
import {
  insertMany,
  openDatabase,
  tables,
  updateMany,
  type CodeRow,
  type Database,
  type Turns,
} from './index.ts'

let directory: string
let database: Database
let file: string

beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-writing-'))
  file = join(directory, 'flimbo.sqlite')
  database = await openDatabase(file)
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
    await insertMany(
      manager,
      tables.codes,
      Array.from({ length: 300 }, (_, i) => row(i + 1)),
    )
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
  name: `Piece “${String(id)}” isn't 1\n2`,
  medium: 'print',
  source: 's',
  state: 'live',
  archivedAt: null,
  version: 1,
  createdAt: id,
  latitude: 53.123456789,
  ...more,
})
/** Everything a large write may change, as another connection sees it. */
function everything(): unknown {
  const other = new Sqlite(file, { readonly: true })
  const rows = ['campaigns', 'routes', 'codes', 'short_links', 'revisions', 'limits', 'undo_log'].map(
    (table) => other.prepare(`SELECT * FROM ${table}`).all(),
  )
  other.close()
  return rows
}
/** Some of everything a large write does, each step in a turn of its own. */
async function work(manager: EntityManager, turns: Turns): Promise<void> {
  await turns.begin()
  const step = async () => {
    await turns.rest()
    await turns.begin()
  }
  await insertMany(
    manager,
    tables.codes,
    Array.from({ length: 200 }, (_, i) => row(1000 + i)),
    turns,
  )
  await step()
  await insertMany(
    manager,
    tables.shortLinks,
    Array.from({ length: 200 }, (_, i) => ({
      domainId: 1,
      slug: `S${String(1000 + i)}`,
      codeId: 1000 + i,
      since: 0,
    })),
    turns,
  )
  await step()
  await updateMany(
    manager,
    tables.codes,
    Array.from({ length: 300 }, (_, i) =>
      row(i + 1, { name: `Other ${String(i)}`, latitude: null, archivedAt: 5 }),
    ),
    turns,
  )
  await step()
  await manager.delete(tables.codes, { id: 7 })
  await manager.update(tables.routes, { id: 1 }, { name: 'Renamed' })
  await manager.query("INSERT INTO limits VALUES (1, 0, 'UTC', 5, NULL, 0, '', 0)")
  await step()
}

describe('a large write', () => {
  it('is stored whole, and leaves nothing to be taken back', async () => {
    await database.writeInTurns(work)
    expect(await database.read.count(tables.codes)).toBe(499)
    expect(await database.read.findOneBy(tables.codes, { id: 9 })).toEqual(
      row(9, { name: 'Other 8', latitude: null, archivedAt: 5 }),
    )
    expect((everything() as unknown[]).at(-1)).toEqual([])
  })

  it('that fails at any point leaves everything as it was', async () => {
    const before = everything()
    let told = 0
    database.onTakenBack(() => {
      told++
    })
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 6 }), async (steps) => {
        let left = steps
        const failing = (turns: Turns): Turns => ({
          ...turns,
          async rest() {
            await turns.rest()
            if (--left === 0) throw new Error('No')
          },
        })
        await expect(
          database.writeInTurns(async (manager, turns) => {
            await work(manager, failing(turns))
            throw new Error('No')
          }),
        ).rejects.toThrow('No')
        expect(everything()).toEqual(before)
      }),
      { numRuns: 8 },
    )
    expect(told).toBeGreaterThan(0)
  })

  it('that is whole stays, although its log could not be cleared before the next one fails', async () => {
    const other = new Sqlite(file)
    other.exec(
      "CREATE TRIGGER no_room BEFORE DELETE ON undo_log BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END",
    )
    await database.writeInTurns(work)
    const after = (everything() as unknown[]).slice(0, -1)
    await expect(database.writeInTurns(work)).rejects.toThrow('full')
    other.exec('DROP TRIGGER no_room')
    other.close()
    await expect(
      database.writeInTurns(async (manager, turns) => {
        await turns.begin()
        await manager.update(tables.codes, { id: 9 }, { name: 'Half' })
        await turns.rest()
        throw new Error('No')
      }),
    ).rejects.toThrow('No')
    expect(everything()).toEqual([...after, []])
  })

  it('that a process left half done is taken back when the database is opened', async () => {
    const before = everything()
    const copy = `${file}-killed`
    await expect(
      database.writeInTurns(async (manager, turns) => {
        await work(manager, turns)
        await turns.rest()
        // What a process leaves that is killed here.
        await database.prepared.backup(copy)
        throw new Error('killed')
      }),
    ).rejects.toThrow('killed')
    const other = await openDatabase(copy)
    const was = file
    file = copy
    expect(everything()).toEqual(before)
    file = was
    await other.close()
  })

  it('lets others in between its turns, and the office’s other writing wait for its end', async () => {
    const order: string[] = []
    const large = database
      .writeInTurns(async (manager, turns) => {
        await turns.begin()
        await manager.update(tables.routes, { id: 1 }, { name: 'Half' })
        await turns.rest()
        order.push('resting')
        const other = new Sqlite(file, { timeout: 0 })
        other.prepare("INSERT INTO places (country, region, city) VALUES ('DE', '', '')").run()
        other.close()
        await database.writeAside((aside) =>
          aside.query("INSERT INTO places (country, region, city) VALUES ('NL', '', '')"),
        )
        order.push('aside')
        await new Promise((resolve) => {
          setTimeout(resolve, 50)
        })
        await turns.begin()
      })
      .then(() => order.push('large'))
    await Promise.all([
      large,
      database.write(async () => {
        order.push('small')
        await Promise.resolve()
      }),
    ])
    expect(order.slice(0, 2)).toEqual(['resting', 'aside'])
    expect(order.slice(2).toSorted()).toEqual(['large', 'small'])
    expect((await database.read.query<{ n: number }[]>('SELECT count(*) AS n FROM places'))[0]?.n).toBe(2)
  })

  it('waits for a lock without stopping the thread', async () => {
    const other = new Sqlite(file)
    other.exec('BEGIN IMMEDIATE')
    let ticks = 0
    const timer = setInterval(() => {
      ticks++
    }, 5)
    const saved = database.write((manager) => manager.update(tables.routes, { id: 1 }, { name: 'Late' }))
    await new Promise((resolve) => {
      setTimeout(resolve, 300)
    })
    other.exec('COMMIT')
    other.close()
    await saved
    clearInterval(timer)
    expect(ticks).toBeGreaterThan(20)
  })
})
