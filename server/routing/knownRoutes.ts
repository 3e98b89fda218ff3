import { compileRoute, ONWARD_MAX, routesLedTo, type CompiledRoute } from '@flimbo/core/routing'
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

  return async (id) => {
    const row = await database.read.findOneByOrFail(tables.routes, { id })
    const all = await routesFrom(database, [row])
    const kept = await loadReferences(
      database.read,
      [...all.values()].map(({ rules }) => rules),
    )
    const compiled = compileRoute(settingsOf(row, kept), (other) => {
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
