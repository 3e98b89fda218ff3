import type { EntityManager } from 'typeorm'
import type { z } from 'zod'
import type { codeChange, newCode } from '@flimbo/core/codes'
import { wrongField } from '../api/index.ts'
import { insertedId, tables, type CodeRow } from '../database/index.ts'
import { changedPart, insertRoute, recordRevision, type By, type Changed } from '../routing/index.ts'
import { claimSlug, freeSlug } from './slugs.ts'

/** What a revision of a code keeps: everything a person can change, and its short link. */
function kept({ id: _id, campaignId: _campaign, version: _version, createdAt: _created, ...rest }: CodeRow) {
  return rest
}

async function routeFor(manager: EntityManager, given: z.output<typeof newCode>, by: By): Promise<number> {
  const { campaignId, routeId, destination, name } = given
  if (routeId === undefined) {
    return (await insertRoute(manager, { campaignId, name, destination: destination ?? '', note: '' }, by)).id
  }
  await routeInCampaign(manager, routeId, campaignId)
  return routeId
}

async function routeInCampaign(manager: EntityManager, id: number, campaignId: number): Promise<void> {
  if (!(await manager.existsBy(tables.routes, { id, campaignId }))) throw wrongField('routeId', 'This route does not exist in the campaign. Choose another.')
}

/** Issues a code, in the caller's transaction: with its own route or a shared one, with a chosen short link or a free one. */
export async function insertCode(manager: EntityManager, given: z.output<typeof newCode>, by: By): Promise<number> {
  const slug = given.slug === undefined ? await freeSlug(manager) : await claimSlug(manager, given.slug)
  const routeId = await routeFor(manager, given, by)
  const { destination: _destination, ...fields } = given
  const row = { ...fields, slug, routeId, state: 'live' as const, version: 1, createdAt: by.at }
  const id = insertedId(await manager.insert(tables.codes, row))
  await recordRevision(manager, { of: 'code', subjectId: id, before: null, after: kept({ ...row, id }), ...by })
  return id
}

/** Changes a code, as a revision; a change from an older version is not made. */
export async function changeCode(manager: EntityManager, id: number, given: z.output<typeof codeChange>, by: By): Promise<Changed> {
  const { version, ...change } = given
  const row = await manager.findOneByOrFail(tables.codes, { id })
  if (row.version !== version) return 'overtaken'
  const part = changedPart(row, change)
  if (!part) return 'same'
  if (part.routeId !== undefined) await routeInCampaign(manager, part.routeId, row.campaignId)
  await recordRevision(manager, { of: 'code', subjectId: id, before: kept(row), after: kept({ ...row, ...part }), ...by })
  await manager.update(tables.codes, { id }, { ...part, version: version + 1 })
  return 'changed'
}
