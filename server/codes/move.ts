import { Not, type EntityManager } from 'typeorm'
import { wrongField, Refusal } from '../api/index.ts'
import {
  findAmong,
  insertMany,
  reserveInTurn,
  tables,
  updateMany,
  type CampaignRow,
  type CodeRow,
  type RevisionRow,
  type RouteRow,
  type Turns,
} from '../database/index.ts'
import { codesOnRoutes, routeSnapshot, type By } from '../routing/index.ts'
import { storeLimits } from '../scans/index.ts'
import { checkKeys, issueCodes, codeSnapshot, type Pace, type PieceToIssue } from './issue.ts'

/** The named codes, in their order. @throws Refusal where one of them is not there any more */
export async function codesNamed(manager: EntityManager, ids: readonly number[]): Promise<CodeRow[]> {
  const found = new Map((await findAmong(manager, tables.codes, 'id', ids)).map((row) => [row.id, row]))
  return ids.map((id) => {
    const row = found.get(id)
    if (!row) throw new Refusal('missing', 'One of these pieces is not there any more. Load the plan again.')
    return row
  })
}

/** Where each route of pieces that move leads them then: itself, or a copy of it; and what that changes. */
interface MovedRoutes {
  readonly routeOf: ReadonlyMap<number, number>
  readonly moved: readonly RouteRow[]
  readonly copies: readonly RouteRow[]
}

/** A route all of whose codes move goes with them; of one that others keep using, a copy does. */
async function routesFor(
  manager: EntityManager,
  coming: readonly CodeRow[],
  campaign: CampaignRow,
  at: number,
  turns: Turns,
): Promise<MovedRoutes> {
  const comingBy = new Map<number, number>()
  for (const { routeId, state } of coming)
    comingBy.set(routeId, (comingBy.get(routeId) ?? 0) + (state === 'deleted' ? 0 : 1))
  const counts = await codesOnRoutes(manager, comingBy.keys())
  const routeOf = new Map<number, number>()
  const [moved, copies]: [RouteRow[], RouteRow[]] = [[], []]
  const routes = await findAmong(manager, tables.routes, 'id', comingBy.keys())
  const isKept = ({ id }: RouteRow) => (counts.get(id) ?? 0) > (comingBy.get(id) ?? 0)
  const copied = routes.filter(isKept).length
  let fresh = await reserveInTurn(manager, turns, tables.routes, copied)
  let revisionId = await reserveInTurn(manager, turns, tables.revisions, copied)
  for (const route of routes) {
    const stays = isKept(route)
    const copy: RouteRow = stays
      ? {
          ...route,
          id: fresh++,
          campaignId: campaign.id,
          revisionId: revisionId++,
          version: 1,
          createdAt: at,
          changedAt: at,
        }
      : { ...route, campaignId: campaign.id }
    if (stays) copies.push(copy)
    else moved.push(copy)
    routeOf.set(route.id, copy.id)
  }
  return { routeOf, moved, copies }
}

/** Moves codes to another campaign, scans and all: onto a route there, or with their own. */
export async function moveCodes(
  manager: EntityManager,
  rows: readonly CodeRow[],
  campaign: CampaignRow,
  routeId: number | null,
  { personId, at }: By,
  turns: Turns,
): Promise<void> {
  if (
    routeId !== null &&
    !(await manager.existsBy(tables.routes, { id: routeId, campaignId: campaign.id, state: Not('deleted') }))
  ) {
    throw wrongField('routeId', 'This route does not exist in that campaign, or was deleted. Choose another.')
  }
  const coming = rows.filter(
    (row) => row.campaignId !== campaign.id || (routeId !== null && row.routeId !== routeId),
  )
  await checkKeys(
    manager,
    campaign.id,
    coming.filter((row) => row.campaignId !== campaign.id).map(({ key }) => key),
  )
  const routes =
    routeId === null
      ? await routesFor(manager, coming, campaign, at, turns)
      : { routeOf: new Map<number, number>(), moved: [], copies: [] }
  const revisions = routes.copies.map((copy): RevisionRow => ({
    id: copy.revisionId,
    of: 'route',
    subjectId: copy.id,
    number: 1,
    at,
    personId,
    before: null,
    after: routeSnapshot(copy),
  }))
  const next = coming.map((row): CodeRow => ({
    ...row,
    campaignId: campaign.id,
    routeId: routeId ?? routes.routeOf.get(row.routeId) ?? row.routeId,
    version: row.version + 1,
  }))
  let revisionId = await reserveInTurn(manager, turns, tables.revisions, next.length)
  next.forEach((row, i) => {
    const before = coming[i]
    if (before)
      revisions.push({
        id: revisionId++,
        of: 'code',
        subjectId: row.id,
        number: row.version,
        at,
        personId,
        before: codeSnapshot(before),
        after: codeSnapshot(row),
      })
  })
  await turns.begin()
  await insertMany(manager, tables.routes, routes.copies, turns)
  await storeLimits(manager, routes.copies, at)
  await updateMany(manager, tables.routes, routes.moved, turns)
  await insertMany(manager, tables.revisions, revisions, turns)
  await updateMany(manager, tables.codes, next, turns)
}

/** A stored piece as one to issue anew: the same in everything but its short link. A deleted one comes back to life. */
export function pieceToReissue(
  { id: _id, routeId, version: _version, createdAt: _created, archivedAt: _archived, ...row }: CodeRow,
  change: Partial<PieceToIssue> = {},
): PieceToIssue {
  return {
    ...row,
    slug: null,
    route: routeId,
    state: row.state === 'deleted' ? 'live' : row.state,
    ...change,
  }
}

const NAME_MAX = 200

/** Duplicates pieces in their own campaign, on the same routes and without their keys. @throws Refusal where a route was deleted */
export async function copyCodes(
  manager: EntityManager,
  rows: readonly CodeRow[],
  by: By,
  slugLength: number,
  pace: Pace,
): Promise<number[]> {
  const [gone] = await findAmong(
    manager,
    tables.routes,
    'id',
    rows.map(({ routeId }) => routeId),
    { state: 'deleted' },
  )
  if (gone) {
    const name = rows.find(({ routeId }) => routeId === gone.id)?.name ?? ''
    throw new Refusal(
      'taken',
      `“${name}” is on the route “${gone.name}”, which was deleted. Nothing was duplicated: leave that piece out, or add it anew.`,
    )
  }
  return issueCodes(
    manager,
    rows.map((row) => pieceToReissue(row, { key: '', name: `${row.name} (copy)`.slice(0, NAME_MAX) })),
    by,
    slugLength,
    pace,
  )
}
