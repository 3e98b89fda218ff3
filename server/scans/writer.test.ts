import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { deviceOf, NOWHERE } from '@flimbo/core/scans'
import { openDatabase, type Database } from '../database/index.ts'
import { PHONE } from '../tests/running.ts'
import {
  dailySalts,
  DoorBusy,
  startScanWriter,
  startUpkeep,
  visitorHash,
  type ScanRecord,
  type ScanWriter,
} from './index.ts'

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
  at: n,
  workspaceId: 1,
  campaignId: 1,
  day: '2026-07-01',
  codeId: 1,
  routeId: 1,
  revisionId: 1,
  outcome: 'redirect',
  exit: 'otherwise',
  variant: '',
  apart: null,
  place: NOWHERE,
  device: deviceOf(PHONE),
  language: 'de',
  referrer: '',
  visitor: `v${String(n)}`,
  ...more,
})
const stored = (each: ScanRecord) =>
  new Promise<void>((resolve, reject) => {
    writer.store(each, (outcome) => {
      if (outcome.kind === 'stored') resolve()
      else reject(outcome.kind === 'failed' ? outcome.error : new Error(outcome.none.why))
    })
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
    await Promise.all(
      Array.from({ length: 300 }, async (_, i) => {
        await stored(scan(i))
        expect(look(`SELECT 1 FROM scans WHERE at = ${String(i)}`)).toHaveLength(1)
      }),
    )
  })

  it('gathers what comes in during a commit into the next one, and tells of all', async () => {
    const groups: number[] = []
    writer.onStored((scans) => {
      groups.push(scans.length)
    })
    await Promise.all(Array.from({ length: 2000 }, (_, i) => stored(scan(i))))
    expect(groups.reduce((a, b) => a + b)).toBe(2000)
    expect(groups.length).toBeLessThan(100)
  })

  it('counts a visitor once a day and code, and nobody kept apart', async () => {
    for (const each of [
      scan(1, { visitor: 'a', apart: 'crawler' }),
      scan(2, { visitor: 'a' }),
      scan(3, { visitor: 'a' }),
      scan(4, { visitor: 'a', codeId: 2 }),
      scan(5, { visitor: 'a', day: '2026-07-02' }),
    ])
      await stored(each)
    expect(
      look<{ isUnique: number }>('SELECT isUnique FROM scans ORDER BY at').map(({ isUnique }) => isUnique),
    ).toEqual([0, 1, 0, 1, 1])
  })

  it('takes a visitor whose first scan could not be stored for new when they come again', async () => {
    change(
      "CREATE TRIGGER no_room BEFORE INSERT ON scan_rows BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END",
    )
    await expect(stored(scan(1, { visitor: 'a' }))).rejects.toThrow('database or disk is full')
    change('DROP TRIGGER no_room')
    await stored(scan(2, { visitor: 'a' }))
    expect(look('SELECT at, isUnique FROM scans')).toEqual([{ at: 2, isUnique: 1 }])
  })

  it('keeps places and agents once', async () => {
    const place = { country: 'DE', region: 'Bremen', city: 'Bremen', latitude: 53.1, longitude: 8.8 }
    for (const each of [scan(1, { place }), scan(2, { place }), scan(3)]) await stored(each)
    expect(look('SELECT * FROM places')).toHaveLength(2)
    expect(look('SELECT * FROM agents')).toHaveLength(1)
  })

  it('says so when the disk refuses, loses nothing else, and goes on when it is well again', async () => {
    await stored(scan(1))
    change(
      "CREATE TRIGGER full BEFORE INSERT ON scan_rows BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END",
    )
    const place = { country: 'NL', region: 'Groningen', city: 'Groningen', latitude: 53.2, longitude: 6.6 }
    await expect(stored(scan(2, { place }))).rejects.toThrow('disk is full')
    change('DROP TRIGGER full')
    await stored(scan(3, { place }))
    expect(
      look<{ at: number; city: string }>(
        'SELECT at, city FROM scans JOIN places ON places.id = placeId ORDER BY at',
      ),
    ).toEqual([
      { at: 1, city: '' },
      { at: 3, city: 'Groningen' },
    ])
  })

  it('turns scans away rather than keep too many in memory', async () => {
    const settled: Promise<void>[] = []
    expect(() => {
      for (let i = 0; i < 20_001; i++) settled.push(stored(scan(i)))
    }).not.toThrow()
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

describe('a limit, in the commit that stores the scan', () => {
  const limit = (maxTotal: number | null, maxDaily: number | null) => {
    change(`INSERT INTO workspaces (id, name, zone, createdAt) VALUES (1, 'W', 'UTC', 0); INSERT INTO clients VALUES (1, 1, 'C', 0, NULL);
      INSERT INTO campaigns (id, workspaceId, clientId, name, zone, utmCampaign, version, createdAt) VALUES (1, 1, 1, 'A', 'UTC', 'a', 1, 0);
      INSERT INTO routes (id, campaignId, name, destination, state, note, revisionId, version, createdAt, changedAt) VALUES (1, 1, 'R', 'https://a.example', 'live', '', 1, 1, 0, 0);
      INSERT INTO limits VALUES (1, 0, 'UTC', ${String(maxTotal ?? 'NULL')}, ${String(maxDaily ?? 'NULL')}, 0, '', 0)`)
  }
  const takes = (n: number, mark = '', day = '2026-07-01') => scan(n, { takes: { day, mark } })
  const told = async (each: ScanRecord) =>
    stored(each).then(
      () => 'stored',
      (error: unknown) => (error as Error).message,
    )

  it('is taken from by whichever writer commits first, and by no more', async () => {
    limit(7, null)
    const other = startScanWriter(database.file)
    const by = (which: ScanWriter, n: number) =>
      new Promise<string>((resolve) => {
        which.store(takes(n), ({ kind }) => {
          resolve(kind)
        })
      })
    const kinds = await Promise.all(Array.from({ length: 200 }, (_, n) => by(n % 2 ? writer : other, n)))
    await other.close()
    expect(kinds.filter((kind) => kind === 'stored')).toHaveLength(7)
    expect(kinds.filter((kind) => kind === 'none-left')).toHaveLength(193)
    expect(look('SELECT id FROM scans')).toHaveLength(7)
    expect(look('SELECT total, today FROM limits')).toEqual([{ total: 7, today: 7 }])
  })

  it('of a day begins anew with the day, and a scan that comes late is of the new one', async () => {
    limit(null, 2)
    const days = ['2026-07-01', '2026-07-01', '2026-07-01', '2026-07-02', '2026-07-01', '2026-07-02']
    const answers: string[] = []
    for (const [n, day] of days.entries()) answers.push(await told(takes(n, '', day)))
    expect(answers).toEqual(['stored', 'stored', 'full-today', 'stored', 'stored', 'full-today'])
  })

  it('gives one mark one place, and none where there is none', async () => {
    limit(2, null)
    const answers: string[] = []
    for (const [n, mark] of ['a', 'a', 'b', 'a', 'c', 'b'].entries()) answers.push(await told(takes(n, mark)))
    expect(answers).toEqual(['stored', 'stored', 'stored', 'stored', 'full', 'stored'])
    expect(look<{ mark: string }>('SELECT mark FROM taken').map(({ mark }) => mark)).toEqual(['a', 'b'])
  })

  it('gives its place back with a scan that could not be stored', async () => {
    limit(1, null)
    change(
      "CREATE TRIGGER full BEFORE INSERT ON scan_rows BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END",
    )
    expect(await told(takes(1))).toContain('disk is full')
    change('DROP TRIGGER full')
    expect([await told(takes(2)), await told(takes(3))]).toEqual(['stored', 'full'])
  })

  it('that was lifted meanwhile refuses nothing', async () => {
    expect(await told(takes(1))).toBe('stored')
  })
})

describe('the write lock', () => {
  it('held by somebody else is waited for, and nothing is lost', async () => {
    const other = new Sqlite(database.file)
    other.exec('BEGIN IMMEDIATE')
    const waiting = Promise.all(Array.from({ length: 50 }, (_, n) => stored(scan(n))))
    await new Promise((resolve) => {
      setTimeout(resolve, 300)
    })
    expect(look('SELECT id FROM scans')).toEqual([])
    other.exec('COMMIT')
    other.close()
    await waiting
    expect(look('SELECT id FROM scans')).toHaveLength(50)
  })
})

describe('the salt of a day', () => {
  const ZONE = 'Europe/Berlin'
  const noon = Date.parse('2026-07-01T10:00:00Z')
  const DAY = 86_400_000
  const salts = () => dailySalts(database, writer)
  beforeEach(() => {
    change("INSERT INTO workspaces (id, name, zone, createdAt) VALUES (1, 'W', 'Europe/Berlin', 0)")
  })

  it('is the same all day, after a restart too, and changes at local midnight', async () => {
    const first = salts()
    const { salt } = await first.today(1, ZONE, noon)
    expect((await first.today(1, ZONE, Date.parse('2026-07-01T21:59:59.999Z'))).salt).toBe(salt)
    expect((await salts().today(1, ZONE, noon + 1000)).salt).toBe(salt)
    const next = await first.today(1, ZONE, Date.parse('2026-07-01T22:00:00Z'))
    expect([next.day, next.salt === salt]).toEqual(['2026-07-02', false])
  })

  it('is stored before it is used, and the same for two doors that begin the day at once', async () => {
    const other = startScanWriter(database.file)
    const [one, two] = await Promise.all([
      salts().today(1, ZONE, noon),
      dailySalts(database, other).today(1, ZONE, noon),
    ])
    await other.close()
    expect(one).toEqual(two)
    expect(look('SELECT salt FROM salts')).toEqual([{ salt: one.salt }])
  })

  it('goes on where the clock is set back over midnight: nobody is unique twice', async () => {
    const midnight = Date.parse('2026-07-01T22:00:00Z')
    const { salt } = await salts().today(1, ZONE, midnight + 60_000)
    expect(await salts().today(1, ZONE, midnight - 60_000)).toMatchObject({ day: '2026-07-02', salt })
    // A clock that was a year ahead does not hold the day up for a year.
    await salts().today(1, ZONE, midnight + 365 * DAY)
    expect(await salts().today(1, ZONE, midnight + DAY)).toMatchObject({ day: '2026-07-03' })
  })

  it('is destroyed when the day is over, scans or none: not one byte of it stays in the files', async () => {
    const { salt, day } = await salts().today(1, ZONE, noon)
    await stored(scan(1, { day, visitor: visitorHash(salt, '198.51.100.1', PHONE) }))
    const files = () =>
      ['', '-wal']
        .map((suffix) => {
          try {
            return readFileSync(database.file + suffix).toString('latin1')
          } catch {
            return ''
          }
        })
        .join()
    expect(files()).toContain(salt)
    // Somebody is reading: the log cannot be cut before they have finished.
    const reading = new Sqlite(database.file, { readonly: true })
    reading.exec('BEGIN')
    reading.prepare('SELECT count(*) FROM scans').get()
    const upkeep = startUpkeep(database.file, () => undefined, 20)
    await vi.waitFor(() => {
      expect([look('SELECT * FROM salts'), look('SELECT * FROM visits')]).toEqual([[], []])
    }, 10_000)
    expect(files()).toContain(salt)
    reading.exec('COMMIT')
    reading.close()
    await vi.waitFor(() => {
      expect(files()).not.toContain(salt)
    }, 10_000)
    await upkeep.close()
  }, 30_000)

  it('makes two hashes of the same visitor on two days', async () => {
    const daily = salts()
    const hash = async (at: number) =>
      visitorHash((await daily.today(1, ZONE, at)).salt, '198.51.100.1', PHONE)
    expect(await hash(noon)).toBe(await hash(noon + 1))
    const first = await hash(noon)
    expect(first).toMatch(/^[0-9a-f]{16}$/)
    expect(await hash(noon + DAY)).not.toBe(first)
  })
})
