import type { EntityManager } from 'typeorm'
import { lanesOfSet, type Lane, type Rules, type RouteSettings } from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'
import { findAmong, tables, type RouteRow } from '../database/index.ts'

type Settled = Pick<RouteRow, 'name' | 'state' | 'destination' | 'rules' | 'passwordHash'>

/** The lanes of the sets that some rules use, by the set. */
export async function setsOf(read: EntityManager, used: readonly Rules[]): Promise<Map<number, Lane[]>> {
  const ids = used.flatMap(({ shared }) => (shared ? [shared.setId] : []))
  return new Map((await findAmong(read, tables.laneSets, 'id', ids)).map(({ id, lanes }) => [id, lanesOfSet(id, lanes)]))
}

export function sharedLanes({ shared }: Rules, sets: ReadonlyMap<number, Lane[]>): Lane[] {
  return shared === null ? [] : (sets.get(shared.setId) ?? [])
}

/** What a stored route says of a scan. */
export function settingsOf({ name, state, destination, rules, passwordHash }: Settled, sets: ReadonlyMap<number, Lane[]>): RouteSettings {
  return { name, state, destination, rules, sharedLanes: sharedLanes(rules, sets), locked: passwordHash !== '' }
}

/** Refuses rules that use a set the workspace does not have. @throws Refusal */
export async function checkShared(manager: EntityManager, { shared }: Rules, campaignId: number): Promise<void> {
  if (shared === null) return
  const { workspaceId } = await manager.findOneByOrFail(tables.campaigns, { id: campaignId })
  if (!(await manager.existsBy(tables.laneSets, { id: shared.setId, workspaceId }))) throw wrongField('rules', 'These shared lanes do not exist any more. Choose others.')
}
