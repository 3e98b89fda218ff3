import { createHash } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import { compileCondition, type Test } from '@flimbo/core/conditions'
import {
  compileRoute,
  compileRules,
  ONWARD_MAX,
  routesLedTo,
  routeWith,
  type CompiledRoute,
  type CompiledRules,
  type RouteSettings,
} from '@flimbo/core/routing'
import { firedBy, type Fired, type VisitTagSettings } from '@flimbo/core/visitTags'
import { findAmong, tables, type ReadOnly, type RouteRow } from '../database/index.ts'
import type { Counter, Limits } from './limits.ts'
import { loadReferences, settingsOf } from './references.ts'

/** A route as the front door keeps it ready. */
export interface KnownRoute {
  readonly revisionId: number
  readonly compiled: CompiledRoute
  readonly counter: Counter | null
  readonly passwordHash: string
  /** The visit tags that fire on its way; null where none does. */
  readonly fired: Fired | null
  /** Every route its lanes lead on to, and theirs. */
  readonly referred: ReadonlySet<number>
}

/** The routes that some rows lead on to, step by step, with the rows themselves. */
export async function routesFrom(
  { read }: Pick<ReadOnly, 'read'>,
  rows: readonly RouteRow[],
): Promise<Map<number, RouteRow>> {
  const found = new Map(rows.map((row) => [row.id, row]))
  let fresh = rows
  for (let step = 0; step < ONWARD_MAX && fresh.length > 0; step++) {
    const wanted = new Set(fresh.flatMap(({ rules }) => routesLedTo(rules)).filter((id) => !found.has(id)))
    fresh = await findAmong(read, tables.routes, 'id', wanted)
    for (const row of fresh) found.set(row.id, row)
  }
  return found
}

/** The visit tags that a workspace defined. */
export type TagsOf = (workspaceId: number) => Promise<VisitTagSettings>

/** So many different rules, and conditions, are kept ready for other routes that have the same. */
const READY_MAX = 20_000

const keyOf = (parts: readonly unknown[]) =>
  createHash('sha256').update(JSON.stringify(parts)).digest('base64')

/** Makes rules ready, once for all routes that have the same: thousands may, as copies of one. */
function rulesOnce(): (settings: RouteSettings) => CompiledRules {
  const ready = new LRUCache<string, CompiledRules>({ max: READY_MAX })
  const tests = new LRUCache<string, Test>({ max: READY_MAX })
  const testOf: typeof compileCondition = (condition, speaks) => {
    const key = keyOf([condition, speaks])
    const known = tests.get(key) ?? compileCondition(condition, speaks)
    tests.set(key, known)
    return known
  }
  return (settings) => {
    const { rules, sharedLanes, pages } = settings
    const key = keyOf([rules, sharedLanes, pages])
    const known = ready.get(key) ?? compileRules(settings, () => null, 1, testOf)
    ready.set(key, known)
    return known
  }
}

/** Reads a route and makes it ready, with the scans it has let through where it is limited. */
export function routeLoader(
  database: Pick<ReadOnly, 'read'>,
  limits: Limits,
  tagsOf: TagsOf,
): (id: number) => Promise<KnownRoute> {
  async function fired({ campaignId, rules }: RouteRow): Promise<Fired | null> {
    if (rules.tags.length === 0) return null
    const { workspaceId } = await database.read.findOneByOrFail(tables.campaigns, { id: campaignId })
    return firedBy(await tagsOf(workspaceId), rules.tags)
  }

  const rulesOf = rulesOnce()

  return async (id) => {
    const row = await database.read.findOneByOrFail(tables.routes, { id })
    const all = await routesFrom(database, [row])
    const kept = await loadReferences(
      database.read,
      [...all.values()].map(({ rules }) => rules),
    )
    const settings = settingsOf(row, kept)
    // What leads on to other routes changes with them.
    const compiled =
      all.size === 1
        ? routeWith(settings, rulesOf(settings))
        : compileRoute(settings, (other) => {
            const led = all.get(other)
            return led ? settingsOf(led, kept) : null
          })
    return {
      revisionId: row.revisionId,
      compiled,
      counter: limits.counterOf(id, row.rules.life),
      passwordHash: row.passwordHash,
      fired: await fired(row),
      referred: new Set([...all.keys()].filter((other) => other !== id)),
    }
  }
}
