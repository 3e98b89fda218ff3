import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { deviceOf, NOWHERE } from '@flimbo/core/scans'
import { openDatabase, type Database } from '../database/index.ts'
import { PHONE } from '../tests/running.ts'
import { dailySalts, DoorBusy, startScanWriter, visitorHash, type ScanRecord, type ScanWriter } from './index.ts'

let directory: string
let database: Database
let writer: ScanWriter
beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-writer-'))
  database = await openDatabase(join(directory, 'flimbo.sqlite'))
  writer = startScanWriter(database.file)
})
afterEach(async () => {
  await writer.close()
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

const scan = (n: number, more: Partial<ScanRecord> = {}): ScanRecord => ({
  at: n, workspaceId: 1, campaignId: 1, day: '2026-07-01', codeId: 1, routeId: 1, revisionId: 1, outcome: 'redirect', exit: 'otherwise', variant: '', apart: null,
  place: NOWHERE, device: deviceOf(PHONE), language: 'de', referrer: '', visitor: `v${String(n)}`, ...more,
})
const stored = (each: ScanRecord) => new Promise<void>((resolve, reject) => {
  writer.store(each, (error) => { if (error) reject(error); else resolve() })
})
const look = <T>(sql: string): T[] => {
  const other = new Sqlite(database.file, { readonly: true })
  try {
    return other.prepare(sql).all() as T[]
  } finally {
    other.close()
  }
}
const change = (sql: string) => {
  const other = new Sqlite(database.file)
  other.exec(sql)
  other.close()
}

describe('storing scans', () => {
  it('is done only once another connection can read them', async () => {
    await Promise.all(Array.from({ length: 300 }, async (_, i) => {
      await stored(scan(i))
      expect(look(`SELECT 1 FROM scans WHERE at = ${String(i)}`)).toHaveLength(1)
    }))
  })

  it('gathers what comes in during a commit into the next one, and tells of all', async () => {
    const groups: number[] = []
    writer.onStored((scans) => { groups.push(scans.length) })
    await Promise.all(Array.from({ length: 2000 }, (_, i) => stored(scan(i))))
    expect(groups.reduce((a, b) => a + b)).toBe(2000)
    expect(groups.length).toBeLessThan(100)
  })

  it('counts a visitor once a day and code, and nobody kept apart', async () => {
    for (const each of [scan(1, { visitor: 'a', apart: 'crawler' }), scan(2, { visitor: 'a' }), scan(3, { visitor: 'a' }), scan(4, { visitor: 'a', codeId: 2 }), scan(5, { visitor: 'a', day: '2026-07-02' })]) await stored(each)
    expect(look<{ isUnique: number }>('SELECT isUnique FROM scans ORDER BY at').map(({ isUnique }) => isUnique)).toEqual([0, 1, 0, 1, 1])
  })

  it('keeps places and agents once', async () => {
    const place = { country: 'DE', region: 'Bremen', city: 'Bremen', latitude: 53.1, longitude: 8.8 }
    for (const each of [scan(1, { place }), scan(2, { place }), scan(3)]) await stored(each)
    expect(look('SELECT * FROM places')).toHaveLength(2)
    expect(look('SELECT * FROM agents')).toHaveLength(1)
  })

  it('says so when the disk refuses, loses nothing else, and goes on when it is well again', async () => {
    await stored(scan(1))
    change("CREATE TRIGGER full BEFORE INSERT ON scans BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END")
    const place = { country: 'NL', region: 'Groningen', city: 'Groningen', latitude: 53.2, longitude: 6.6 }
    await expect(stored(scan(2, { place }))).rejects.toThrow('disk is full')
    change('DROP TRIGGER full')
    await stored(scan(3, { place }))
    expect(look<{ at: number; city: string }>('SELECT at, city FROM scans JOIN places ON places.id = placeId ORDER BY at')).toEqual([{ at: 1, city: '' }, { at: 3, city: 'Groningen' }])
  })

  it('turns scans away rather than keep too many in memory', async () => {
    const settled: Promise<void>[] = []
    expect(() => { for (let i = 0; i < 20_001; i++) settled.push(stored(scan(i))) }).not.toThrow()
    const last = settled.at(-1)
    await expect(last).rejects.toThrow(DoorBusy)
    await Promise.allSettled(settled)
  })

  it('writes what is waiting before it stops', async () => {
    const waiting = Array.from({ length: 500 }, (_, i) => stored(scan(i)))
    await writer.close()
    await Promise.all(waiting)
    expect(look('SELECT id FROM scans')).toHaveLength(500)
    await expect(stored(scan(1))).rejects.toThrow('closed')
  })
})

describe('the salt of a day', () => {
  const ZONE = 'Europe/Berlin'
  const noon = Date.parse('2026-07-01T10:00:00Z')
  const DAY = 86_400_000
  const errors: unknown[] = []
  const salts = () => dailySalts(database, writer, (error) => errors.push(error))
  /** A salt reaches the disk with the first scan that needs it, if not before. */
  const settle = () => stored(scan(9, { day: '2030-01-01' }))
  beforeEach(() => { change("INSERT INTO workspaces (name, zone, createdAt) VALUES ('W', 'Europe/Berlin', 0)") })

  it('is the same all day, after a restart too, and changes at local midnight', async () => {
    const first = salts()
    const { salt } = first.today(1, ZONE, noon)
    expect(first.today(1, ZONE, Date.parse('2026-07-01T21:59:59.999Z')).salt).toBe(salt)
    await settle()
    expect(salts().today(1, ZONE, noon + 1000).salt).toBe(salt)
    const next = first.today(1, ZONE, Date.parse('2026-07-01T22:00:00Z'))
    expect([next.day, next.salt === salt]).toEqual(['2026-07-02', false])
  })

  it('is destroyed when the day is over: not one byte of it stays in the files', async () => {
    const daily = salts()
    const { salt, day } = daily.today(1, ZONE, noon)
    await stored(scan(1, { day, visitor: visitorHash(salt, '198.51.100.1', PHONE) }))
    const files = () => ['', '-wal'].map((suffix) => { try { return readFileSync(database.file + suffix).toString('latin1') } catch { return '' } }).join()
    expect(files()).toContain(salt)
    daily.today(1, ZONE, noon + DAY)
    await settle()
    expect(look('SELECT * FROM salts')).toHaveLength(1)
    expect(look("SELECT * FROM visits WHERE day = '2026-07-01'")).toHaveLength(0)
    expect(files()).not.toContain(salt)
    expect(errors).toEqual([])
  })

  it('makes two hashes of the same visitor on two days', () => {
    const daily = salts()
    const hash = (at: number) => visitorHash(daily.today(1, ZONE, at).salt, '198.51.100.1', PHONE)
    expect(hash(noon)).toBe(hash(noon + 1))
    expect(hash(noon)).toMatch(/^[0-9a-f]{16}$/)
    expect(hash(noon + DAY)).not.toBe(visitorHash('', '198.51.100.1', PHONE))
  })
})
