import type { EntityManager } from 'typeorm'
import type { RouteSettings } from '@flimbo/core/routing'
import { insertedId, tables, type RouteRow } from '../database/index.ts'
import { changedPart, recordRevision } from './revisions.ts'

export interface By { readonly personId: number; readonly at: number }

/** What a revision of a route keeps. */
export function keptOfRoute({ name, destination, state, note }: RouteRow) {
  return { name, destination, state, note }
}

/** Stores a new route with its first revision, in the caller's transaction. */
export async function insertRoute(
  manager: EntityManager,
  given: Pick<RouteRow, 'campaignId' | 'name' | 'destination' | 'note'>,
  { personId, at }: By,
): Promise<RouteRow> {
  const row = { ...given, state: 'live' as const, revisionId: 0, version: 1, createdAt: at, changedAt: at }
  const id = insertedId(await manager.insert(tables.routes, row))
  const whole: RouteRow = { ...row, id }
  const revisionId = await recordRevision(manager, { of: 'route', subjectId: id, before: null, after: keptOfRoute(whole), at, personId })
  await manager.update(tables.routes, { id }, { revisionId })
  return { ...whole, revisionId }
}

export type Changed = 'changed' | 'same' | 'overtaken'

/** Changes a route, as a revision; a change from an older version is not made. */
export async function changeRoute(
  manager: EntityManager,
  id: number,
  version: number,
  change: Partial<Pick<RouteRow, 'name' | 'destination' | 'note'> & RouteSettings['route']>,
  { personId, at }: By,
): Promise<Changed> {
  const row = await manager.findOneByOrFail(tables.routes, { id })
  const part = changedPart(row, change)
  if (row.version !== version) return 'overtaken'
  if (!part) return 'same'
  const next: RouteRow = { ...row, ...part }
  const revisionId = await recordRevision(manager, { of: 'route', subjectId: id, before: keptOfRoute(row), after: keptOfRoute(next), at, personId })
  await manager.update(tables.routes, { id }, { ...part, revisionId, version: version + 1, changedAt: at })
  return 'changed'
}
