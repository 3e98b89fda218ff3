import type Sqlite from 'better-sqlite3'
import type { Packed } from './record.ts'

/** Remembers the row numbers of a small table whose rows are never changed, up to a bound. */
export function rowNumbers(insert: Sqlite.Statement, find: Sqlite.Statement, max = 50_000) {
  const known = new Map<string, number>()
  const numberOf = (...values: readonly Packed[]): number => {
    const key = values.length === 1 ? String(values[0]) : values.join('\u0000')
    const there = known.get(key)
    if (there !== undefined) return there
    insert.run(...values)
    const row = find.get(...values) as { id: number }
    if (known.size >= max) known.clear()
    known.set(key, row.id)
    return row.id
  }
  const forget = () => {
    known.clear()
  }
  return { numberOf, forget }
}

const SCANNED_MAX = 1_000_000

/** What scans have in common: rows that are kept once, found by what is in them, and made where there is none yet. */
export function commonRows(database: Sqlite.Database) {
  const places = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO places (country, region, city, latitude, longitude) VALUES (?, ?, ?, ?, ?)',
    ),
    database.prepare(`SELECT id FROM places WHERE country = ? AND region = ? AND city = ?
      AND ifnull(latitude, 999) = ifnull(?, 999) AND ifnull(longitude, 999) = ifnull(?, 999)`),
  )
  const agents = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO agents (device, system, systemVersion, browser) VALUES (?, ?, ?, ?)',
    ),
    database.prepare(
      'SELECT id FROM agents WHERE device = ? AND system = ? AND systemVersion = ? AND browser = ?',
    ),
  )
  const ways = rowNumbers(
    database.prepare(
      'INSERT OR IGNORE INTO ways (routeId, revisionId, outcome, exit, variant, apart) VALUES (?, ?, ?, ?, ?, ?)',
    ),
    database.prepare(`SELECT id FROM ways WHERE routeId = ? AND revisionId = ? AND outcome = ? AND exit = ? AND variant = ?
      AND ifnull(apart, '') = ifnull(?, '')`),
  )
  const words = rowNumbers(
    database.prepare('INSERT OR IGNORE INTO words (text) VALUES (?)'),
    database.prepare('SELECT id FROM words WHERE text = ?'),
  )
  const noteCode = database.prepare('INSERT OR IGNORE INTO scanned_codes (codeId) VALUES (?)')
  const scanned = new Set<number>()
  return {
    /** Country, region, city, latitude and longitude. */
    placeOf: places.numberOf,
    /** Device, system, version of the system, and browser. */
    agentOf: agents.numberOf,
    /** The way a scan took: its route, under which revision, the outcome, the exit, the variant, and why it is kept apart. */
    wayOf: ways.numberOf,
    /** A language or a referrer. */
    wordOf: words.numberOf,
    /** Notes that a code was asked for. */
    noteScanned(codeId: number): void {
      if (scanned.has(codeId)) return
      noteCode.run(codeId)
      if (scanned.size >= SCANNED_MAX) scanned.clear()
      scanned.add(codeId)
    },
    /** A transaction that was rolled back took its new rows with it: what is remembered of them must go too. */
    forget(): void {
      for (const rows of [places, agents, ways, words]) rows.forget()
      scanned.clear()
    },
  }
}
