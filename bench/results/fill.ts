import { randomSeed } from '../random.ts'
import Sqlite from 'better-sqlite3'
import { fillCodes } from '../fill.ts'
import { fillGoals } from './fillGoals.ts'

/** What is filled in: a large house's two years. */
export const CODES = 5000
export const CAMPAIGNS = 20
export const DAYS = 730
const DAY_MS = 86_400_000
/** The largest campaign has so large a part of all scans. */
const LARGEST = 0.22
const [PLACES, AGENTS] = [2500, 400]
const LANGUAGES = ['de-DE', 'en-GB', 'nl-NL', 'da-DK', 'de-AT', 'fr-FR', 'pl-PL', 'sv-SE', 'en-US', '']
const COUNTRIES = ['DE', 'NL', 'DK', 'GB', 'AT', 'FR', 'PL', 'SE']
const DEVICES = ['phone', 'phone', 'phone', 'phone', 'tablet', 'computer']
const SYSTEMS = ['iOS', 'Android', 'Android', 'iPadOS', 'Windows', 'macOS']
const BROWSERS = ['Mobile Safari', 'Chrome', 'Firefox', 'Samsung Internet', 'Edge']

/** One scan as it is filled in. */
export interface Filled {
  readonly at: number
  readonly codeId: number
  readonly apart: 'crawler' | null
  readonly isUnique: number
  readonly placeId: number
  readonly agentId: number
  readonly language: string
}

/** Scans in the order of time, always the same ones. */
export function* scansOf(count: number, start: number): Generator<Filled> {
  const random = randomSeed(7)
  const each = Math.ceil(CODES / CAMPAIGNS)
  for (let i = 0; i < count; i++) {
    const at = Math.floor(start + ((i + random()) / count) * DAYS * DAY_MS)
    const campaign = random() < LARGEST ? 0 : 1 + Math.floor(random() * (CAMPAIGNS - 1))
    // Few pieces have most of the scans.
    const codeId = campaign * each + 1 + Math.floor(random() ** 2 * each)
    const isApart = random() < 0.03
    yield {
      at,
      codeId: Math.min(CODES, codeId),
      apart: isApart ? 'crawler' : null,
      isUnique: !isApart && random() < 0.8 ? 1 : 0,
      placeId: 1 + Math.floor(random() ** 3 * PLACES),
      agentId: 1 + Math.floor(random() ** 2 * AGENTS),
      language: LANGUAGES[Math.floor(random() ** 2 * LANGUAGES.length)] ?? '',
    }
  }
}

/** A database with so many scans in it, the last of them now. @returns when the first was, and the slugs of its codes */
export async function fillScans(file: string, count: number): Promise<{ start: number; slugs: string[] }> {
  const slugs = await fillCodes(file, CODES)
  const database = new Sqlite(file)
  database.pragma('journal_mode = OFF')
  database.pragma('synchronous = OFF')
  const now = Date.now()
  const start = now - DAYS * DAY_MS
  database.transaction(() => {
    const each = Math.ceil(CODES / CAMPAIGNS)
    for (let c = 2; c <= CAMPAIGNS; c++)
      database
        .prepare(
          "INSERT INTO campaigns (id, workspaceId, clientId, name, zone, utmCampaign, version, createdAt) VALUES (?, 1, 1, ?, 'Europe/Berlin', 'bench', 1, ?)",
        )
        .run(c, `Campaign ${String(c)}`, now)
    database.exec(`UPDATE codes SET campaignId = 1 + (id - 1) / ${String(each)}`)
    database.exec(`UPDATE routes SET campaignId = 1 + (id * 10 - 10) / ${String(each)}`)
    const place = database.prepare('INSERT INTO places VALUES (?, ?, ?, ?, ?, ?)')
    for (let i = 1; i <= PLACES; i++)
      place.run(
        i,
        COUNTRIES[i % COUNTRIES.length],
        `Region ${String(i % 90)}`,
        `Town ${String(i)}`,
        50 + (i % 100) / 20,
        5 + (i % 77) / 10,
      )
    const agent = database.prepare('INSERT INTO agents VALUES (?, ?, ?, ?, ?)')
    for (let i = 1; i <= AGENTS; i++)
      agent.run(
        i,
        DEVICES[i % DEVICES.length],
        SYSTEMS[i % SYSTEMS.length],
        String(i),
        BROWSERS[i % BROWSERS.length],
      )
    const word = database.prepare('INSERT OR IGNORE INTO words (id, text) VALUES (?, ?)')
    for (const [i, language] of LANGUAGES.entries()) word.run(language === '' ? 0 : i + 1, language)
    // Each route has two ways: counted, and kept apart.
    const way = database.prepare(
      "INSERT INTO ways (id, routeId, revisionId, outcome, apart, exit, variant) VALUES (?, ?, 1, 'redirect', ?, 'otherwise', '')",
    )
    for (let route = 1; route <= CODES / 10; route++) {
      way.run(2 * route, route, null)
      way.run(2 * route + 1, route, 'crawler')
    }
    const scan = database.prepare(
      'INSERT INTO scan_rows (at, codeId, wayId, isUnique, placeId, agentId, languageId, referrerId, visitor) VALUES (?, ?, ?, ?, ?, ?, ?, 0, ?)',
    )
    const visitor = Buffer.alloc(8)
    let i = 0
    for (const { at, codeId, apart, isUnique, placeId, agentId, language } of scansOf(count, start)) {
      visitor.writeUInt32LE(Math.imul(i++, 2654435761) >>> 0)
      const wayId = 2 * (Math.floor((codeId - 1) / 10) + 1) + (apart === null ? 0 : 1)
      const languageId = language === '' ? 0 : LANGUAGES.indexOf(language) + 1
      scan.run(at, codeId, wayId, isUnique, placeId, agentId, languageId, visitor)
    }
    database.exec('INSERT OR IGNORE INTO scanned_codes SELECT DISTINCT codeId FROM scan_rows')
    fillGoals(database)
  })()
  database.pragma('journal_mode = WAL')
  database.close()
  return { start, slugs }
}
