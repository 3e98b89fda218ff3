import type { Apart, Outcome } from '@flimbo/core/scans'
import type { Fact } from '../figures/index.ts'
import { rememberedRows } from '../sqlite/index.ts'
import { FOLDED_ROW } from './foldedRow.ts'

/**
 * What a scan is counted by: the way it took (which route decided, how it was answered, and whether it is kept apart),
 * where it came from, on what, and in which language.
 */
export const SCAN_DIMENSIONS = ['way', 'place', 'agent', 'language', 'referrer'] as const
export type ScanDimension = (typeof SCAN_DIMENSIONS)[number]

/** The way a scan took. */
export interface Way {
  readonly routeId: number
  readonly apart: Apart | null
  readonly outcome: Outcome
  readonly exit: string
  readonly variant: string
}

/** A way as it stands in the dimension: its parts, with a tab between each two. */
const WAY = `routeId || char(9) || ifnull(apart, '') || char(9) || outcome || char(9) || exit || char(9) || variant`

export function readWay(text: string): Way {
  const [routeId = '0', apart = '', outcome = '', exit = '', variant = ''] = text.split('\t')
  return {
    routeId: Number(routeId),
    // As they were written.
    apart: apart === '' ? null : (apart as Apart),
    outcome: outcome as Outcome,
    exit,
    variant,
  }
}

type Row = [
  id: number,
  at: number,
  code: number,
  flags: number,
  way: string,
  place: number,
  agent: number,
  language: string,
  referrer: string,
]
/** The same with the numbers of what is kept once, whether it is unique in place of the flags. */
type StoredRow = [
  id: number,
  at: number,
  code: number,
  isUnique: number,
  way: number,
  place: number,
  agent: number,
  language: number,
  referrer: number,
]

const STORED_COLUMNS = 'id, at, codeId, isUnique, wayId, placeId, agentId, languageId, referrerId'
const STORED = `SELECT ${STORED_COLUMNS} FROM scan_rows WHERE id > ? AND id <= ? ORDER BY id LIMIT ?`
/** The same while rows of scans that are folded still stand there. */
const STORED_BESIDE = `SELECT ${STORED_COLUMNS} FROM scan_rows
  WHERE id > ? AND id <= ? AND NOT ${FOLDED_ROW} ORDER BY id LIMIT ?`
const BEFORE = `SELECT id, at, codeId, (apart IS NULL) + 2 * isUnique, ${WAY}, placeId, agentId, language, referrer FROM scans_before
  WHERE id > ? AND id <= ? ORDER BY id LIMIT ?`

const NO_WAY = { text: '', isCounted: 0 }

/** Scans, as they are counted. */
export const scanFact: Fact<ScanDimension> = {
  name: 'scans',
  dimensions: SCAN_DIMENSIONS,
  everyFact: ['way'],
  group: { dimension: 'way', of: (way) => Number.parseInt(way, 10) },
  reader(database) {
    const newest = database.prepare('SELECT max(id) FROM scan_rows').pluck()
    const proof = database
      .prepare(`SELECT at || ' ' || codeId || ' ' || visitor FROM scans WHERE id = ?`)
      .pluck()
    const stored = database.prepare(STORED).raw()
    const storedBeside = database.prepare(STORED_BESIDE).raw()
    const isClearing = database.prepare(
      `SELECT 1 FROM folds WHERE fact = 'scans' AND clearedTo < lastId LIMIT 1`,
    )
    const isMoving = database.prepare("SELECT 1 FROM sqlite_master WHERE name = 'scans_before'").pluck()
    const ways = rememberedRows<{ text: string; isCounted: number }>(
      database.prepare(`SELECT ${WAY} AS text, apart IS NULL AS isCounted FROM ways WHERE id = ?`),
    )
    const words = rememberedRows<{ text: string }>(database.prepare('SELECT text FROM words WHERE id = ?'))

    function written([id, at, code, isUnique, way, place, agent, language, referrer]: StoredRow): Row {
      const { text, isCounted } = ways(way) ?? NO_WAY
      const flags = isCounted + 2 * isUnique
      return [
        id,
        at,
        code,
        flags,
        text,
        place,
        agent,
        words(language)?.text ?? '',
        words(referrer)?.text ?? '',
      ]
    }
    /** Scans that were not moved yet stand in between those that were and new ones. */
    const rowsBetween = database.transaction((after: number, upTo: number, limit: number): Row[] => {
      const rows = isClearing.get() === undefined ? stored : storedBeside
      const here = (rows.all(after, upTo, limit) as StoredRow[]).map(written)
      if (isMoving.get() === undefined) return here
      const before = database.prepare(BEFORE).raw().all(after, upTo, limit) as Row[]
      if (before.length === 0) return here
      return [...here, ...before].sort(([a], [b]) => a - b).slice(0, limit)
    })
    return {
      newest: () => (newest.get() as number | null) ?? 0,
      proof: (id) => (proof.get(id) as string | undefined) ?? '',
      between(after, upTo, limit) {
        const rows = rowsBetween(after, upTo, limit)
        return {
          id: rows.map((row) => row[0]),
          at: rows.map((row) => row[1]),
          code: rows.map((row) => row[2]),
          flags: rows.map((row) => row[3]),
          dimensions: {
            way: rows.map((row) => row[4]),
            place: rows.map((row) => row[5]),
            agent: rows.map((row) => row[6]),
            language: rows.map((row) => row[7]),
            referrer: rows.map((row) => row[8]),
          },
        }
      },
    }
  },
}
