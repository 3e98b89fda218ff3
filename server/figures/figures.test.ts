import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { FOLD_TABLES } from '../sqlite/index.ts'
import { EVER, eachTotal, factStore, packAnew, packer, proveSegments, type Fact } from './index.ts'

/** Bells that were rung: the least that a fact can be. */
const bells: Fact<'tone'> = {
  name: 'bells',
  dimensions: ['tone'],
  everyFact: ['tone'],
  group: { dimension: 'tone', of: () => 0 },
  reader(database) {
    const newest = database.prepare('SELECT max(id) FROM bells').pluck()
    const some = database
      .prepare('SELECT id, at, codeId, tone FROM bells WHERE id > ? AND id <= ? ORDER BY id LIMIT ?')
      .raw()
    return {
      newest: () => (newest.get() as number | null) ?? 0,
      proof: (id) => `bell ${String(id)}`,
      between(after, upTo, limit) {
        const rows = some.all(after, upTo, limit) as [number, number, number, string][]
        return {
          id: rows.map(([id]) => id),
          at: rows.map(([, at]) => at),
          code: rows.map(([, , code]) => code),
          flags: rows.map(() => 1),
          dimensions: { tone: rows.map(([, , , tone]) => tone) },
        }
      },
    }
  },
}
const SIZES = { facts: 10, together: 2, lastLevel: 2, sheetFacts: 1 }

let directory: string
let database: Sqlite.Database
const segments = () => join(directory, 'bells')
beforeEach(() => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-figures-'))
  database = new Sqlite(join(directory, 'bells.sqlite'))
  database.exec(`CREATE TABLE bells (id INTEGER PRIMARY KEY, at INTEGER, codeId INTEGER, tone TEXT);
    CREATE TABLE codes (id INTEGER PRIMARY KEY, campaignId INTEGER, routeId INTEGER);
    INSERT INTO codes VALUES (1, 1, 1), (2, 1, 2)`)
  for (const statement of FOLD_TABLES) database.exec(statement)
})
afterEach(() => {
  database.close()
  rmSync(directory, { recursive: true, force: true })
})

function ring(times: number): void {
  const insert = database.prepare('INSERT INTO bells (at, codeId, tone) VALUES (?, ?, ?)')
  for (let i = 0; i < times; i++) insert.run(1000 * i, 1 + (i % 2), i % 3 === 0 ? 'high' : 'low')
}
const newPacker = () => packer(database, segments(), bells, SIZES)
function packAll(): void {
  const packing = newPacker()
  while (packing.step().hasMore);
  packing.close()
}
function counted(): [code: number, count: number][] {
  const counts = new Map<number, number>()
  for (const part of factStore(database, segments(), bells).parts())
    eachTotal(part, 'all', EVER, (code, count) => counts.set(code, (counts.get(code) ?? 0) + count))
  return [...counts].sort(([a], [b]) => a - b)
}

describe('packing', () => {
  it('is done by one at a time; another goes on once that one has ended', () => {
    ring(30)
    const [first, second] = [newPacker(), newPacker()]
    expect(first.step()).toMatchObject({ isPacking: true })
    expect(second.step()).toMatchObject({ isPacking: false })
    first.close()
    expect(second.step()).toMatchObject({ isPacking: true, mark: 30, hasMore: false })
    second.close()
    expect(counted()).toEqual([
      [1, 15],
      [2, 15],
    ])
  })

  it('begins anew where it is asked to, whoever packs', () => {
    ring(40)
    const packing = newPacker()
    while (packing.step().hasMore);
    packAnew(segments())
    expect(counted()).toEqual([
      [1, 20],
      [2, 20],
    ])
    const states = [packing.step(), packing.step()]
    expect(states.map(({ mark }) => mark)).toEqual([20, 40])
    packing.close()
  })
})

describe('a proof', () => {
  it('agrees with what was packed, and says how much that is', () => {
    ring(57)
    packAll()
    expect(proveSegments(database, segments(), bells)).toMatchObject({ facts: 50, wrong: [] })
  })

  it.each([
    ['a moment', 'UPDATE bells SET at = at + 1 WHERE id = 17'],
    ['a dimension', "UPDATE bells SET tone = 'cracked' WHERE id = 17"],
    ['where it belongs', 'UPDATE bells SET codeId = 2 WHERE id = 17'],
    ['its being there', 'DELETE FROM bells WHERE id = 17'],
  ])('names the segment that differs from the rows in %s of one fact', (_what, change) => {
    ring(40)
    packAll()
    database.exec(change)
    const { wrong } = proveSegments(database, segments(), bells)
    expect(wrong.length).toBeGreaterThan(0)
    for (const sentence of wrong) expect(sentence).toMatch(/^1-40: .* differ/)
  })
})
