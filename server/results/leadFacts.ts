import type Sqlite from 'better-sqlite3'
import type { Span } from '@flimbo/core/time'

/** A lead as it is counted: what it was brought by, and from where; empty for what is not known any more. */
export interface LeadFact {
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

type StoredLead = Pick<
  LeadFact,
  'at' | 'codeId' | 'country' | 'region' | 'city' | 'device' | 'system' | 'routeId'
> & {
  readonly scanId: number
}
type ScanOfLead = Omit<LeadFact, keyof StoredLead>

const NO_SCAN: ScanOfLead = {
  latitude: null,
  longitude: null,
  browser: '',
  language: '',
  referrer: '',
  outcome: '',
  exit: '',
  variant: '',
}

/**
 * Leads that are in no doubt, by the codes that brought them: one belongs to its code, as its scan does, wherever that
 * code is by now.
 */
export function leadFacts(database: Sqlite.Database) {
  const leads = database.prepare(
    `SELECT at, codeId, scanId, routeId, country, region, city, device, system FROM leads
    WHERE workspaceId = ? AND at >= ? AND at < ? AND held = '' AND apart = ''`,
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
  ): LeadFact[] => {
    const found = (leads.all(workspaceId, start, end) as StoredLead[]).filter(({ codeId }) =>
      codes.has(codeId),
    )
    return found.map(({ scanId, ...lead }) => ({
      ...lead,
      ...(withScans ? ((scanOf.get(scanId) as ScanOfLead | undefined) ?? NO_SCAN) : NO_SCAN),
    }))
  }
}
