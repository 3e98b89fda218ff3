import type Sqlite from 'better-sqlite3'
import { rememberedRows } from '../sqlite/index.ts'
import type { ScanCell } from './rows.ts'

const STORED = `SELECT id, at, codeId, wayId, isUnique, placeId, agentId, languageId, referrerId FROM scan_rows WHERE id = ?`

type StoredRow = [
  ...[id: number, at: number, codeId: number, wayId: number, isUnique: number],
  ...[placeId: number, agentId: number, languageId: number, referrerId: number],
]
type Word = [text: string]
type WayRow = [
  routeId: number,
  revision: number | null,
  outcome: string,
  exit: string,
  variant: string,
  apart: ScanCell,
]
type PlaceCells = [country: string, region: string, city: string, latitude: ScanCell, longitude: ScanCell]
type AgentCells = [device: string, system: string, systemVersion: string, browser: string]
const NO_WORD: Word = ['']
const NO_WAY: WayRow = [0, null, '', '', '', null]
const NO_PLACE: PlaceCells = ['', '', '', null, null]
const NO_AGENT: AgentCells = ['other', '', '', '']

/**
 * Reads scans by their numbers for files: what many have in common, such as places, is read once for all of them. A scan
 * that this cannot read by itself, since it was not moved yet, is read by `plain`.
 *
 * @returns the cells as `scanColumns` has them
 */
export function scanRowReader(database: Sqlite.Database, plain: Sqlite.Statement) {
  const stored = database.prepare(STORED).raw()
  const isClearing = database.prepare(
    `SELECT 1 FROM folds WHERE fact = 'scans' AND clearedTo < lastId LIMIT 1`,
  )
  const remembered = <R>(sql: string) => rememberedRows<R>(database.prepare(sql).raw())
  const codeOf = remembered<Word>('SELECT name FROM codes WHERE id = ?')
  const wayOf = remembered<WayRow>(
    `SELECT w.routeId, v.number, w.outcome, w.exit, w.variant, w.apart FROM ways w
    LEFT JOIN revisions v ON v.id = w.revisionId WHERE w.id = ?`,
  )
  const placeOf = remembered<PlaceCells>(
    'SELECT country, region, city, latitude, longitude FROM places WHERE id = ?',
  )
  const agentOf = remembered<AgentCells>(
    'SELECT device, system, systemVersion, browser FROM agents WHERE id = ?',
  )
  const wordOf = remembered<Word>('SELECT text FROM words WHERE id = ?')

  function whole([
    id,
    at,
    codeId,
    wayId,
    isUnique,
    placeId,
    agentId,
    language,
    referrer,
  ]: StoredRow): ScanCell[] {
    const way = wayOf(wayId) ?? NO_WAY
    const place = placeOf(placeId) ?? NO_PLACE
    const agent = agentOf(agentId) ?? NO_AGENT
    const code = codeOf(codeId) ?? NO_WORD
    // Written out: putting lists together takes five times as long.
    return [
      id,
      at,
      codeId,
      code[0],
      way[0],
      way[1],
      way[2],
      way[3],
      way[4],
      way[5],
      isUnique,
      place[0],
      place[1],
      place[2],
      place[3],
      place[4],
      agent[0],
      agent[1],
      agent[2],
      agent[3],
      (wordOf(language) ?? NO_WORD)[0],
      (wordOf(referrer) ?? NO_WORD)[0],
    ]
  }

  return (ids: Iterable<number>): ScanCell[][] => {
    // Rows of scans that were folded may still stand there for a moment.
    const isPlain = isClearing.get() !== undefined
    const rows: ScanCell[][] = []
    for (const id of ids) {
      const row = isPlain ? undefined : (stored.get(id) as StoredRow | undefined)
      const cells = row ? whole(row) : (plain.get(id) as ScanCell[] | undefined)
      // Those that are folded meanwhile have no row any more.
      if (cells) rows.push(cells)
    }
    return rows
  }
}
