import { In, type EntityManager } from 'typeorm'
import {
  allLanes,
  lanesOfSet,
  pagesLedTo,
  type Lane,
  type LinkedPage,
  type Rules,
  type RouteSettings,
} from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'
import { findAmong, tables, type RouteRow } from '../database/index.ts'

type Settled = Pick<RouteRow, 'name' | 'state' | 'destination' | 'rules' | 'passwordHash'>

/** The lanes of the sets that some rules use, by the set. */
export async function loadLaneSets(
  read: EntityManager,
  used: readonly Rules[],
): Promise<Map<number, Lane[]>> {
  const ids = used.flatMap(({ shared }) => (shared ? [shared.setId] : []))
  return new Map(
    (await findAmong(read, tables.laneSets, 'id', ids)).map(({ id, lanes }) => [id, lanesOfSet(id, lanes)]),
  )
}

/** The lanes of the set that some rules share; none where they share none. */
export function sharedLanes({ shared }: Rules, sets: ReadonlyMap<number, Lane[]>): Lane[] {
  return shared === null ? [] : (sets.get(shared.setId) ?? [])
}

/** What rules lead to that is kept elsewhere: the lanes of their shared sets, and pages. */
export interface RouteReferences {
  readonly sets: ReadonlyMap<number, Lane[]>
  readonly pages: ReadonlyMap<number, LinkedPage>
}

const pagesReferred = (rules: Rules, sets: ReadonlyMap<number, Lane[]>) =>
  pagesLedTo({ life: rules.life, lanes: allLanes(rules, sharedLanes(rules, sets)) })

/** Reads what some rules lead to. */
export async function loadReferences(read: EntityManager, used: readonly Rules[]): Promise<RouteReferences> {
  const sets = await loadLaneSets(read, used)
  // What they show is not read: it may be long, and a route only leads to them.
  const rows = await read.find(tables.pages, {
    select: { id: true, name: true, revisionId: true },
    where: { id: In([...new Set(used.flatMap((rules) => pagesReferred(rules, sets)))]) },
  })
  return {
    sets,
    pages: new Map(rows.map(({ id, name, revisionId }) => [id, { id, name, revisionId }])),
  }
}

/** The pages that rules lead to, as far as there are any. */
export function pagesOf(rules: Rules, { sets, pages }: RouteReferences): LinkedPage[] {
  return pagesReferred(rules, sets).flatMap((id) => pages.get(id) ?? [])
}

/** What a stored route says of a scan. */
export function settingsOf(
  { name, state, destination, rules, passwordHash }: Settled,
  kept: RouteReferences,
): RouteSettings {
  return {
    name,
    state,
    destination,
    rules,
    sharedLanes: sharedLanes(rules, kept.sets),
    pages: pagesOf(rules, kept),
    locked: passwordHash !== '',
  }
}

/**
 * Refuses lanes and bounds that lead to a page the workspace does not have.
 *
 * @param isLive whether phones are to be led there now: to a page that was never published, they cannot be
 * @throws Refusal
 */
export async function checkPages(
  manager: EntityManager,
  rules: Pick<Rules, 'lanes' | 'life'>,
  workspaceId: number,
  isLive = true,
): Promise<void> {
  for (const id of pagesLedTo(rules)) {
    const page = await manager.findOne(tables.pages, {
      select: { id: true, name: true, campaignId: true, revisionId: true },
      where: { id },
    })
    if (isLive && page?.revisionId === 0)
      throw wrongField(
        'rules',
        `The page “${page.name}” is not published yet, so phones have nothing to see there. Publish it first.`,
      )
    if (!page || !(await manager.existsBy(tables.campaigns, { id: page.campaignId, workspaceId })))
      throw wrongField('rules', 'A lane or a bound leads to a page that does not exist. Choose another.')
  }
}

/** Refuses rules that use a set the workspace does not have. @throws Refusal */
export async function checkShared(
  manager: EntityManager,
  { shared }: Rules,
  campaignId: number,
): Promise<void> {
  if (shared === null) return
  const { workspaceId } = await manager.findOneByOrFail(tables.campaigns, { id: campaignId })
  if (!(await manager.existsBy(tables.laneSets, { id: shared.setId, workspaceId })))
    throw wrongField('rules', 'These shared lanes do not exist any more. Choose others.')
}
