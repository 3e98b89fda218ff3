import type Sqlite from 'better-sqlite3'
import { retryWhenLockedSync } from '../sqlite/index.ts'
import type { SiteRecord } from './record.ts'

interface OfScan {
  readonly country: string
  readonly region: string
  readonly city: string
  readonly device: string
  readonly system: string
}
const NOTHING_KNOWN: OfScan = { country: '', region: '', city: '', device: 'other', system: '' }

/** The goal that arrivals are stored under. */
export const ARRIVAL = 0

/**
 * Stores what sites told, all of a call in one commit. What counts once is stored once, however often it is told; of a
 * look at a page the longest time holds.
 *
 * @returns of each how many goals were stored
 */
export function siteInserter(database: Sqlite.Database) {
  const scanOf = database.prepare(
    `SELECT p.country, p.region, p.city, a.device, a.system FROM scans s
    JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId WHERE s.id = ?`,
  )
  const reach = database.prepare(
    `INSERT OR IGNORE INTO goal_events (workspaceId, at, goalId, codeId, scanId, routeId, country, region, city, device,
      system, valueMilli, orderName, once, apart) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  )
  const look = database.prepare(
    `INSERT INTO site_views (scanId, view, workspaceId, at, codeId, page, seconds, apart) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
    ON CONFLICT (scanId, view) DO UPDATE SET seconds = max(seconds, excluded.seconds)`,
  )

  function storeOne({ workspaceId, codeId, scanId, routeId, at, apart, view, reached }: SiteRecord): number {
    const { country, region, city, device, system } =
      (scanOf.get(scanId) as OfScan | undefined) ?? NOTHING_KNOWN
    const store = (goalId: number, once: string, order: string, valueMilli: number) =>
      reach.run(
        ...[workspaceId, at, goalId, codeId, scanId, routeId, country, region, city, device, system],
        ...[valueMilli, order, once, apart],
      ).changes
    if (view) {
      look.run(scanId, view.key, workspaceId, at, codeId, view.page, view.seconds, apart)
      store(ARRIVAL, `scan ${String(scanId)}`, '', 0)
    }
    return reached.reduce(
      (sum, { goalId, once, order, valueMilli }) => sum + store(goalId, once, order, valueMilli),
      0,
    )
  }
  const storeAll = database.transaction((records: readonly SiteRecord[]) => records.map(storeOne))
  return (records: readonly SiteRecord[]): number[] => {
    let stored: number[] = []
    retryWhenLockedSync(() => {
      stored = storeAll.immediate(records)
    })
    return stored
  }
}
