import type { Apart, Outcome } from '@flimbo/core/scans'
import type { Fact } from '../figures/index.ts'

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
const WAY = `s.routeId || char(9) || ifnull(s.apart, '') || char(9) || s.outcome || char(9) || s.exit || char(9) || s.variant`

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

/** Scans, as they are counted. */
export const scanFact: Fact<ScanDimension> = {
  name: 'scans',
  dimensions: SCAN_DIMENSIONS,
  everyFact: ['way'],
  group: { dimension: 'way', of: (way) => Number.parseInt(way, 10) },
  reader(database) {
    const newest = database.prepare('SELECT max(id) FROM scans').pluck()
    const proof = database
      .prepare(`SELECT at || ' ' || codeId || ' ' || visitor FROM scans WHERE id = ?`)
      .pluck()
    const between = database
      .prepare(
        `SELECT s.id, s.at, s.codeId, (s.apart IS NULL) + 2 * s.isUnique, ${WAY}, s.placeId, s.agentId, s.language, s.referrer
        FROM scans s WHERE s.id > ? AND s.id <= ? ORDER BY s.id LIMIT ?`,
      )
      .raw()
    return {
      newest: () => (newest.get() as number | null) ?? 0,
      proof: (id) => (proof.get(id) as string | undefined) ?? '',
      between(after, upTo, limit) {
        const rows = between.all(after, upTo, limit) as Row[]
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
