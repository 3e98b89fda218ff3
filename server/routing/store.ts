import type { EntityManager } from 'typeorm'
import { NO_RULES, type Lane, type LinkedPage, type Rules } from '@flimbo/core/routing'
import { insertedId, tables, type RouteRow, type Turns } from '../database/index.ts'
import type { LetThrough } from '../results/index.ts'
import { storeLimit } from '../scans/index.ts'
import { changedPart, recordRevision } from './revisions.ts'
import { loadReferences, pagesOf, sharedLanes, type RouteReferences } from './references.ts'

export interface By {
  readonly personId: number
  readonly at: number
}

/** What a revision of a route keeps: the lanes of its shared set and its pages as they were then, and of a password only that there is one. */
export function routeSnapshot(
  { name, destination, state, note, rules, passwordHash }: RouteRow,
  ofSet: Lane[] = [],
  pages: LinkedPage[] = [],
) {
  return { name, destination, state, note, rules, sharedLanes: ofSet, pages, locked: passwordHash !== '' }
}

/** The same, with what is kept elsewhere as it is now. */
export function withReferences(row: RouteRow, kept: RouteReferences) {
  return routeSnapshot(row, sharedLanes(row.rules, kept.sets), pagesOf(row.rules, kept))
}

/**
 * Makes a change of what is kept elsewhere, a set of lanes or a page, and a revision of each route that leads to
 * it: what their codes do changes with it. There may be thousands; each has its turn.
 */
export async function storeChange(
  manager: EntityManager,
  routes: readonly RouteRow[],
  change: () => Promise<unknown>,
  { personId, at }: By,
  turns: Turns,
): Promise<void> {
  const all = routes.map(({ rules }) => rules)
  const was = await loadReferences(manager, all)
  await turns.begin()
  await change()
  const is = await loadReferences(manager, all)
  for (const route of routes) {
    const revisionId = await recordRevision(manager, {
      of: 'route',
      subjectId: route.id,
      before: withReferences(route, was),
      after: withReferences(route, is),
      at,
      personId,
    })
    await manager.update(
      tables.routes,
      { id: route.id },
      { revisionId, version: route.version + 1, changedAt: at },
    )
    await turns.pause()
  }
}

/** A route that sends every scan to its destination. */
export function plainRoute(
  given: Pick<RouteRow, 'campaignId' | 'name' | 'destination' | 'note'>,
  at: number,
): Omit<RouteRow, 'id'> {
  return {
    ...given,
    state: 'live' as const,
    rules: NO_RULES,
    passwordHash: '',
    draft: null,
    draftVersion: 0,
    expectations: [],
    revisionId: 0,
    version: 1,
    createdAt: at,
    changedAt: at,
  }
}

/** Stores a new route with its first revision, in the caller's transaction. */
export async function insertRoute(
  manager: EntityManager,
  given: Pick<RouteRow, 'campaignId' | 'name' | 'destination' | 'note'>,
  { personId, at }: By,
): Promise<RouteRow> {
  const row = plainRoute(given, at)
  const id = insertedId(await manager.insert(tables.routes, row))
  const whole: RouteRow = { ...row, id }
  const revisionId = await recordRevision(manager, {
    of: 'route',
    subjectId: id,
    before: null,
    after: routeSnapshot(whole),
    at,
    personId,
  })
  await manager.update(tables.routes, { id }, { revisionId })
  return { ...whole, revisionId }
}

export type Changed = 'changed' | 'same' | 'overtaken'
export type RouteChanges = Partial<
  Pick<RouteRow, 'name' | 'destination' | 'state' | 'note' | 'rules' | 'passwordHash'>
>

/** Limits count from the moment they come into force; changed numbers go on counting. */
function withCountedFrom(rules: Rules, was: Rules, at: number): Rules {
  const { life } = rules
  if (life === null || (life.limit === null && life.daily === null)) return rules
  const counting = was.life !== null && (was.life.limit !== null || was.life.daily !== null)
  return {
    ...rules,
    life: { ...life, countedFrom: counting && life.countedFrom !== 0 ? (was.life?.countedFrom ?? at) : at },
  }
}

/**
 * Changes a route, as a revision; a change from an older version is not made.
 *
 * @param letThrough how many scans it let through today, counted before the transaction, where its rules change
 */
export async function changeRoute(
  manager: EntityManager,
  id: number,
  version: number,
  change: RouteChanges,
  { personId, at }: By,
  letThrough: LetThrough | null = null,
): Promise<Changed> {
  const row = await manager.findOneByOrFail(tables.routes, { id })
  const part = changedPart(
    row,
    change.rules ? { ...change, rules: withCountedFrom(change.rules, row.rules, at) } : change,
  )
  if (row.version !== version) return 'overtaken'
  if (!part) return 'same'
  // Whoever prepares something goes on from what is live: a destination they did not touch follows it.
  const draft =
    row.draft && part.destination !== undefined && row.draft.destination === row.destination
      ? { ...row.draft, destination: part.destination }
      : row.draft
  const next: RouteRow = { ...row, ...part }
  const kept = await loadReferences(manager, [row.rules, next.rules])
  const revisionId = await recordRevision(manager, {
    of: 'route',
    subjectId: id,
    before: withReferences(row, kept),
    after: withReferences(next, kept),
    at,
    personId,
  })
  await manager.update(
    tables.routes,
    { id },
    { ...part, draft, revisionId, version: version + 1, changedAt: at },
  )
  if (part.rules) await storeLimit(manager, id, next.rules, at, letThrough)
  return 'changed'
}
