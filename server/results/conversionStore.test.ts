import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeEach, describe, expect, it } from 'vitest'
import type { Code } from '@flimbo/core/codes'
import { openDatabase } from '../database/index.ts'
import { siteInserter } from '../goals/insert.ts'
import { storeLead } from '../tests/leadSample.ts'
import { storeScans } from '../tests/scanSample.ts'
import { ARRIVAL, GOAL, LEAD, type Conversions, type ConversionTraits } from './conversions.ts'
import { conversionStore } from './conversionStore.ts'

const directory = mkdtempSync(join(tmpdir(), 'flimbo-conversions-'))
let files = 0
let file: string
let database: Sqlite.Database
beforeEach(async () => {
  file = join(directory, `${String(++files)}.sqlite`)
  await (await openDatabase(file)).close()
  database = new Sqlite(file)
  database.pragma('foreign_keys = OFF')
  // Only what scans are stored with is read of it.
  const code = { id: 7, campaignId: 1, routeId: 3 } as Code
  storeScans(
    file,
    ['de-DE', 'da', 'nl-NL', 'de-DE'].map((language, i) => ({
      ...{ at: `2026-07-0${String(i + 1)}T10:00:00Z`, code, language, city: 'Husum' },
    })),
  )
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const DAY = Date.parse('2026-07-05T00:00:00Z')
const WEEK = { start: DAY - 7 * 86_400_000, end: DAY + 86_400_000 }
const CODES = new Set([7])

/** Tells as the site does: that a scan arrived, and what it reached. */
function reach(scanId: number, goals: readonly number[] = [], apart = '') {
  siteInserter(database)([
    {
      ...{ workspaceId: 1, at: DAY + scanId, codeId: 7, routeId: 3, scanId, apart },
      view: { key: 'v', page: 'saltmarsh.example/pass', seconds: 3 },
      reached: goals.map((goalId) => ({
        ...{ goalId, once: `scan ${String(scanId)}`, order: '', valueMilli: 39_000 },
      })),
    },
  ])
}
/** Of each what it is called in a trait. */
function called<N extends keyof ConversionTraits>(conversions: Conversions, name: N): ConversionTraits[N][] {
  const { values, index } = conversions.trait(name)
  return [...index].flatMap((number) => values[number] ?? [])
}

describe('what happened after scans', () => {
  it('is there with what it knows itself, and with what its scan does', () => {
    reach(1, [4])
    reach(2, [], 'crawler')
    storeLead(file, { at: DAY, codeId: 7, routeId: 9, scanId: 3, city: 'Kiel' })
    const found = conversionStore(database).of(1, CODES, WEEK)
    expect([...found.kind]).toEqual([ARRIVAL, GOAL, LEAD])
    expect([...found.valueMilli]).toEqual([0, 39_000, 0])
    expect(called(found, 'place').map(({ city }) => city)).toEqual(['Husum', 'Husum', 'Kiel'])
    expect(called(found, 'language')).toEqual(['de-DE', 'de-DE', 'nl-NL'])
    expect(called(found, 'way')).toEqual(
      [3, 3, 9].map((routeId) => ({ routeId, outcome: 'redirect', exit: 'otherwise', variant: '' })),
    )
    expect(called(found, 'spot')).toEqual(Array(3).fill({ latitude: 53.5, longitude: 8.1 }))
  })

  it('is of the codes, the days and the workspace that are asked for', () => {
    reach(1)
    const store = conversionStore(database)
    expect(store.of(1, CODES, WEEK).length).toBe(1)
    expect(store.of(1, new Set([8]), WEEK).length).toBe(0)
    expect(store.of(2, CODES, WEEK).length).toBe(0)
    expect(store.of(1, CODES, { start: WEEK.start, end: DAY }).length).toBe(0)
  })

  it.each([1, 100])('is there at once when it is told, with %i scans remembered', (kept) => {
    const store = conversionStore(database, kept)
    reach(1)
    reach(2)
    while (store.readAhead());
    expect(called(store.of(1, CODES, WEEK), 'language')).toEqual(['de-DE', 'da'])
    // Of a scan that is not there (yet) nothing is known.
    reach(5)
    reach(3, [4])
    expect(called(store.of(1, CODES, WEEK), 'language')).toEqual(['de-DE', 'da', '', 'nl-NL', 'nl-NL'])
  })

  it('forgets what another database held in its place', () => {
    reach(1)
    const store = conversionStore(database)
    expect(called(store.of(1, CODES, WEEK), 'language')).toEqual(['de-DE'])
    database.exec(`DELETE FROM goal_events; DELETE FROM scan_rows WHERE id = 1`)
    reach(2)
    expect(called(store.of(1, CODES, WEEK), 'language')).toEqual(['da'])
    reach(1)
    expect(called(store.of(1, CODES, WEEK), 'language')).toEqual(['da', ''])
  })
})
