import type Sqlite from 'better-sqlite3'
import type { ConversionFact } from './conversionFacts.ts'

/** What a conversion does not know by itself, and its scan does. */
export type OfScan = Pick<
  ConversionFact,
  'latitude' | 'longitude' | 'browser' | 'language' | 'referrer' | 'outcome' | 'exit' | 'variant'
>

export const NO_SCAN: OfScan = {
  latitude: null,
  longitude: null,
  browser: '',
  language: '',
  referrer: '',
  outcome: '',
  exit: '',
  variant: '',
}

/** So many scans are remembered; of more, all are read anew. */
const KNOWN_MAX = 300_000

/**
 * Reads the scans that conversions came of. A scan never changes, so each is read once: until some are folded, when there is
 * nothing left to know of them.
 */
export function scansOfConversions(database: Sqlite.Database) {
  // Each on its own, so that not all scans are looked through while some are being moved.
  const scanOf = database.prepare(
    `SELECT p.latitude, p.longitude, a.browser, s.language, s.referrer, s.outcome, s.exit, s.variant
    FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId WHERE s.id = ?`,
  )
  const stateOf = database
    .prepare(
      `SELECT count(*) || ' ' || coalesce(max(lastId), 0) || ' ' || coalesce(max(clearedTo), 0) || ' ' ||
        coalesce(max(before), 0) || ' ' || coalesce((SELECT min(id) FROM scan_rows), 0) FROM folds`,
    )
    .pluck()
  const known = new Map<number, OfScan>()
  let state = ''
  return {
    /** To be called before what is known is asked for: forgets what is folded by now. */
    refresh(): void {
      const now = String(stateOf.get())
      if (now !== state || known.size > KNOWN_MAX) known.clear()
      state = now
    },
    of(scanId: number): OfScan {
      const there = known.get(scanId)
      if (there) return there
      const found = scanOf.get(scanId) as OfScan | undefined
      if (!found) return NO_SCAN
      known.set(scanId, found)
      return found
    },
  }
}
