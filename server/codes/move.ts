import type { EntityManager } from 'typeorm'
import { wrongField, Refusal } from '../api/index.ts'
import { findAmong, insertMany, nextId, tables, updateMany, type CampaignRow, type CodeRow, type RevisionRow, type RouteRow } from '../database/index.ts'
import { keptOfRoute, type By } from '../routing/index.ts'
import { checkKeys, issueCodes, kept, type FreshRoute, type PieceToIssue } from './issue.ts'

/** The named codes of a workspace, deleted ones left out. @throws Refusal where one of them is not there */
export async function codesNamed(manager: EntityManager, workspaceId: number, ids: readonly number[]): Promise<CodeRow[]> {
  const campaigns = new Set((await manager.find(tables.campaigns, { select: { id: true }, where: { workspaceId } })).map(({ id }) => id))
  const found = new Map((await findAmong(manager, tables.codes, 'id', ids)).filter(({ campaignId }) => campaigns.has(campaignId)).map((row) => [row.id, row]))
  return ids.map((id) => {
    const row = found.get(id)
    if (!row) throw new Refusal('missing', 'One of these pieces is not there any more. Load the plan again.')
    return row
  })
}

/**
 * Moves codes to another campaign, scans and all: onto a route there, or with their own. A route all of
 * whose codes move goes with them; of one that others keep using, a copy does.
 */
export async function moveCodes(manager: EntityManager, rows: readonly CodeRow[], campaign: CampaignRow, routeId: number | null, { personId, at }: By): Promise<void> {
  if (routeId !== null && !(await manager.existsBy(tables.routes, { id: routeId, campaignId: campaign.id }))) throw wrongField('routeId', 'This route does not exist in that campaign. Choose another.')
  const coming = rows.filter((row) => row.campaignId !== campaign.id || (routeId !== null && row.routeId !== routeId))
  await checkKeys(manager, campaign.id, coming.filter((row) => row.campaignId !== campaign.id).map(({ key }) => key))
  let revisionId = await nextId(manager, tables.revisions)
  const revisions: RevisionRow[] = []
  const routeOf = new Map<number, number>()
  if (routeId === null) {
    let fresh = await nextId(manager, tables.routes)
    const moving = new Set(coming.map(({ id }) => id))
    for (const id of new Set(coming.map((row) => row.routeId))) {
      const route = await manager.findOneByOrFail(tables.routes, { id })
      const staying = (await manager.find(tables.codes, { select: { id: true }, where: { routeId: id } })).some((code) => !moving.has(code.id))
      if (!staying) {
        await manager.update(tables.routes, { id }, { campaignId: campaign.id })
        routeOf.set(id, id)
        continue
      }
      const copy: RouteRow = { ...route, id: fresh++, campaignId: campaign.id, revisionId: revisionId++, version: 1, createdAt: at, changedAt: at }
      await insertMany(manager, tables.routes, [copy])
      revisions.push({ id: copy.revisionId, of: 'route', subjectId: copy.id, number: 1, at, personId, before: null, after: keptOfRoute(copy) })
      routeOf.set(id, copy.id)
    }
  }
  const next = coming.map((row): CodeRow => ({ ...row, campaignId: campaign.id, routeId: routeId ?? routeOf.get(row.routeId) ?? row.routeId, version: row.version + 1 }))
  next.forEach((row, i) => {
    const before = coming[i]
    if (before) revisions.push({ id: revisionId++, of: 'code', subjectId: row.id, number: row.version, at, personId, before: kept(before), after: kept(row) })
  })
  await insertMany(manager, tables.revisions, revisions)
  await updateMany(manager, tables.codes, next)
}

/** A stored piece as one to issue anew: the same in everything but its short link. */
export function again({ id: _id, routeId, version: _version, createdAt: _created, archivedAt: _archived, ...row }: CodeRow, change: Partial<PieceToIssue> = {}): PieceToIssue {
  return { ...row, slug: null, route: routeId, ...change }
}

/** Duplicates pieces in their own campaign, on the same routes and without their keys. */
export function copyCodes(manager: EntityManager, rows: readonly CodeRow[], by: By, slugLength: number): Promise<number[]> {
  return issueCodes(manager, rows.map((row) => again(row, { key: '', name: `${row.name} (copy)`.slice(0, 200) })), by, slugLength)
}

export interface CampaignCopying { readonly domainId: number; readonly day: (day: string | null) => string | null }

/** Issues all current pieces of one campaign again in another, each on a copy of its route. */
export async function copyPlan(manager: EntityManager, from: number, to: number, { domainId, day }: CampaignCopying, by: By, slugLength: number): Promise<void> {
  const rows = (await manager.find(tables.codes, { where: { campaignId: from }, order: { id: 'asc' } })).filter(({ state, archivedAt }) => state !== 'deleted' && archivedAt === null)
  const fresh = new Map<number, FreshRoute>((await manager.findBy(tables.routes, { campaignId: from })).filter(({ state }) => state !== 'deleted').map(({ id, name, destination, note, state, rules, passwordHash }) => [id, { name, destination, note, state, rules, passwordHash }]))
  await issueCodes(manager, rows.map((row) => again(row, { campaignId: to, domainId, route: fresh.get(row.routeId) ?? row.routeId, liveOn: day(row.liveOn), downOn: day(row.downOn) })), by, slugLength)
}
