import type Sqlite from 'better-sqlite3'

/** Arrivals a thousand scans, and goals. */
const [ARRIVING, REACHING] = [15, 5]

/** Has some of the scans arrive on a site, and some of them reach a goal worth 39, always the same ones. @returns how many there are */
export function fillGoals(database: Sqlite.Database): number {
  database
    .prepare(
      `INSERT INTO goals (id, campaignId, name, kind, "key", pattern, selector, value, counts, signedOnly, isOn, version, createdAt)
      VALUES (1, 1, 'Order', 'sent', 'order', '', '', 39, 'each', 0, 1, 1, 0)`,
    )
    .run()
  // Which scans they are follows from their numbers alone: every thousand has as many.
  const insert = (goalId: number, below: number, worth: number) =>
    database
      .prepare(
        `INSERT INTO goal_events (workspaceId, at, goalId, codeId, scanId, routeId, country, region, city, device, system,
          valueMilli, orderName, once, apart)
        SELECT 1, s.at + 60000, ?, s.codeId, s.id, s.routeId, p.country, p.region, p.city, a.device, a.system, ?, '',
          ? || ' ' || s.id, '' FROM scans s JOIN places p ON p.id = s.placeId JOIN agents a ON a.id = s.agentId
        WHERE s.apart IS NULL AND (s.id * 7919) % 1000 < ?`,
      )
      .run(goalId, worth, goalId, below).changes
  return insert(0, ARRIVING, 0) + insert(1, REACHING, 39_000)
}
