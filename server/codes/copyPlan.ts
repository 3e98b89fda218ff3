import { Not, type EntityManager } from 'typeorm'
import { withPages } from '@flimbo/core/pages'
import { copyRules, routesLedTo, type Renumbered } from '@flimbo/core/routing'
import {
  insertedId,
  insertMany,
  reserveInTurn,
  tables,
  type RevisionRow,
  type RouteRow,
} from '../database/index.ts'
import { loadReferences, withReferences, plainRoute, type By } from '../routing/index.ts'
import { beginRevisions } from '../pages/index.ts'
import { storeLimits } from '../scans/index.ts'
import { issueCodes, type Pace } from './issue.ts'
import { pieceToReissue } from './move.ts'

export interface CampaignCopying {
  readonly domainId: number
  /** A day, or the day of a moment, in the copy: shifted, or null where it is cleared. */
  readonly day: (day: string) => string | null
}

/** Copies the pages of a campaign. @returns the number of each copy by that of its page */
async function copyPages(
  manager: EntityManager,
  from: number,
  to: number,
  by: By,
): Promise<Map<number, number>> {
  const { at } = by
  const pages = new Map<number, number>()
  const rows = await manager.findBy(tables.pages, { campaignId: from })
  for (const { id, ...page } of rows) {
    const made = { ...page, campaignId: to, version: 1, createdAt: at, changedAt: at }
    pages.set(id, insertedId(await manager.insert(tables.pages, made)))
  }
  // They lead to one another's copies, once all have a number.
  for (const { id, live, draft, summary } of rows) {
    const copy = pages.get(id) ?? 0
    const content = live && withPages(live, pages)
    const led = summary.pages ?? []
    if (led.length > 0) {
      const own = { ...summary, pages: led.map((page) => pages.get(page) ?? page) }
      const set = { live: content, draft: draft && withPages(draft, pages), summary: own }
      await manager.update(tables.pages, { id: copy }, set)
    }
    if (content) await beginRevisions(manager, copy, content, by)
  }
  return pages
}

/** Some routes and all that their lanes lead on to. */
function withLedTo(rows: readonly RouteRow[], first: ReadonlySet<number>): RouteRow[] {
  const byId = new Map(rows.map((row) => [row.id, row]))
  const wanted = new Set(first)
  // A set that grows while it is walked is walked to its end.
  for (const id of wanted)
    for (const next of routesLedTo(byId.get(id)?.rules ?? { lanes: [] })) wanted.add(next)
  return rows.filter(({ id }) => wanted.has(id))
}

/** Copies routes of a campaign, leading to one another's copies and those of its pages, with their dates shifted. */
async function copyRoutes(
  manager: EntityManager,
  from: number,
  to: number,
  used: ReadonlySet<number>,
  { day }: CampaignCopying,
  { personId, at }: By,
  { turns }: Pace,
): Promise<Map<number, number>> {
  const rows = withLedTo(
    await manager.find(tables.routes, {
      where: { campaignId: from, state: Not('deleted') },
      order: { id: 'asc' },
    }),
    used,
  )
  let id = await reserveInTurn(manager, turns, tables.routes, rows.length)
  let revisionId = await reserveInTurn(manager, turns, tables.revisions, rows.length)
  const routes = new Map(rows.map((row) => [row.id, id++]))
  await turns.begin()
  const renumbered: Renumbered = { routes, pages: await copyPages(manager, from, to, { at, personId }) }
  await turns.rest()
  const copies = rows.map(({ name, destination, note, state, rules, passwordHash, ...row }): RouteRow => ({
    ...plainRoute({ campaignId: to, name, destination, note }, at),
    id: routes.get(row.id) ?? 0,
    state,
    passwordHash,
    revisionId: revisionId++,
    rules: copyRules(rules, renumbered, day, at),
  }))
  const kept = await loadReferences(
    manager,
    copies.map(({ rules }) => rules),
  )
  await turns.begin()
  await insertMany(manager, tables.routes, copies, turns)
  await storeLimits(manager, copies, at)
  await insertMany(
    manager,
    tables.revisions,
    copies.map((copy): RevisionRow => ({
      id: copy.revisionId,
      of: 'route',
      subjectId: copy.id,
      number: 1,
      at,
      personId,
      before: null,
      after: withReferences(copy, kept),
    })),
    turns,
  )
  return routes
}

/** Issues all current pieces of one campaign again in another, each on a copy of its route. */
export async function copyPlan(
  manager: EntityManager,
  from: number,
  to: number,
  copying: CampaignCopying,
  by: By,
  slugLength: number,
  pace: Pace,
): Promise<void> {
  const rows = (
    await manager.find(tables.codes, { where: { campaignId: from }, order: { id: 'asc' } })
  ).filter(({ state, archivedAt }) => state !== 'deleted' && archivedAt === null)
  const routes = await copyRoutes(
    manager,
    from,
    to,
    new Set(rows.map(({ routeId }) => routeId)),
    copying,
    by,
    pace,
  )
  const dayOf = (was: string | null) => (was === null ? null : copying.day(was))
  const pieces = rows.map((row) =>
    pieceToReissue(row, {
      campaignId: to,
      domainId: copying.domainId,
      route: routes.get(row.routeId) ?? row.routeId,
      liveOn: dayOf(row.liveOn),
      downOn: dayOf(row.downOn),
    }),
  )
  await issueCodes(manager, pieces, by, slugLength, pace)
}
