import type Sqlite from 'better-sqlite3'
import type { Span } from '@flimbo/core/time'

/** What happened after a scan, of which each conversion is one. */
export interface ConversionCounts {
  readonly leads: number
  /** Scans that arrived on the site. */
  readonly arrivals: number
  readonly goals: number
  /** What goals are worth, in thousandths of the workspace's currency: sums of whole numbers are exact. */
  readonly valueMilli: number
}

/** A lead, an arrival or a goal as it is counted: what it was brought by, and from where; empty for what is not known any more. */
export interface ConversionFact extends ConversionCounts {
  readonly at: number
  readonly codeId: number
  readonly country: string
  readonly region: string
  readonly city: string
  readonly latitude: number | null
  readonly longitude: number | null
  readonly device: string
  readonly system: string
  readonly browser: string
  readonly language: string
  readonly referrer: string
  readonly outcome: string
  /** The route that decided, by which lane the scan left it, and by which variant. */
  readonly routeId: number
  readonly exit: string
  readonly variant: string
}

type Stored = Pick<
  ConversionFact,
  'at' | 'codeId' | 'country' | 'region' | 'city' | 'device' | 'system' | 'routeId' | keyof ConversionCounts
> & {
  readonly scanId: number
}
type OfScan = Omit<ConversionFact, keyof Stored>

const NO_SCAN: OfScan = {
  latitude: null,
  longitude: null,
  browser: '',
  language: '',
  referrer: '',
  outcome: '',
  exit: '',
  variant: '',
}

const COMMON = 'at, codeId, scanId, routeId, country, region, city, device, system'

/**
 * Leads that are in no doubt, arrivals and goals of people, by the codes that brought them: one belongs to its code, as
 * its scan does, wherever that code is by now.
 */
export function conversionFacts(database: Sqlite.Database) {
  const leads = database.prepare(
    `SELECT ${COMMON}, 1 AS leads, 0 AS arrivals, 0 AS goals, 0 AS valueMilli FROM leads
    WHERE workspaceId = ? AND at >= ? AND at < ? AND held = '' AND apart = ''`,
  )
  const goals = database.prepare(
    `SELECT ${COMMON}, 0 AS leads, goalId = 0 AS arrivals, goalId <> 0 AS goals, valueMilli FROM goal_events
    WHERE workspaceId = ? AND at >= ? AND at < ? AND apart = ''`,
  )
  // Each on its own, so that not all scans are looked through while some are being moved.
  const scanOf = database.prepare(
    `SELECT p.latitude, p.longitude, a.browser, s.language, s.referrer, s.outcome, s.exit, s.variant
    FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId WHERE s.id = ?`,
  )
  /** @param withScans whether what only their scans know is asked for */
  return (
    workspaceId: number,
    codes: ReadonlySet<number>,
    { start, end }: Span,
    withScans: boolean,
  ): ConversionFact[] => {
    const stored = [leads, goals].flatMap((each) => each.all(workspaceId, start, end) as Stored[])
    const found = stored.filter(({ codeId }) => codes.has(codeId))
    return found.map(({ scanId, ...fact }) => ({
      ...fact,
      ...(withScans ? ((scanOf.get(scanId) as OfScan | undefined) ?? NO_SCAN) : NO_SCAN),
    }))
  }
}
