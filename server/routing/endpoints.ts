import { Not } from 'typeorm'
import { routesApi, type Route } from '@flimbo/core/routing'
import { bounds, missing, mount, overtaken, Refusal, sortedPage, type Mounts } from '../api/index.ts'
import { tables, type Database, type RouteRow } from '../database/index.ts'
import { type Reader } from '../reader/index.ts'
import { tallyOf, type TallyAmong } from '../results/index.ts'
import type { Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { attentionEndpoint } from './attention.ts'
import { checkDestination, type Origins } from './checkDestination.ts'
import { draftEndpoints } from './draftEndpoints.ts'
import { laneSetEndpoints } from './laneSetEndpoints.ts'
import type { TagsOf } from './knownRoutes.ts'
import { findRouteLeadingTo } from './onward.ts'
import { listRevisions } from './revisions.ts'
import { changeRoute, insertRoute } from './store.ts'
import { wholeRoutes } from './whole.ts'

export interface RoutingParts {
  readonly database: Database
  readonly reader: Reader
  readonly reviewer: Reader
  readonly doors: Doors
  readonly live: LiveHub
  readonly domains: Origins
  readonly tagsOf: TagsOf
}

/** The endpoints of routes, as `core`’s contract describes them. */
export function routesEndpoints(mounts: Mounts, parts: RoutingParts): void {
  const { database, reader, doors, live, domains } = parts
  const { read } = database

  async function withCounts(
    campaignId: number,
    rows: readonly RouteRow[],
    among: TallyAmong = { campaign: campaignId },
  ): Promise<Route[]> {
    const [codes, tallies] = await Promise.all([
      read
        .createQueryBuilder()
        .select('c.routeId', 'routeId')
        .addSelect('count(*)', 'n')
        .from(tables.codes, 'c')
        .where("c.campaignId = :campaignId AND c.state <> 'deleted'", { campaignId })
        .groupBy('c.routeId')
        .getRawMany<{ routeId: number; n: number }>(),
      reader.ask('tallies', 'route', among),
    ])
    const codesOf = new Map(codes.map(({ routeId, n }) => [routeId, n]))
    return rows.map(({ rules, draft, ...row }) => ({
      ...row,
      codes: codesOf.get(row.id) ?? 0,
      scans: tallyOf(tallies, row.id),
      lanes: rules.lanes.length,
      hasDraft: draft !== null,
    }))
  }

  const whole = wholeRoutes(parts, async (row) => {
    const [counted] = await withCounts(row.campaignId, [row], { route: row.id })
    if (!counted) throw missing('route')
    return counted
  })

  mount(mounts, routesApi.list, async ({ query }) => {
    const { campaignId, page, pageSize, sort, order } = query
    if (sort === 'name' || sort === 'changedAt') {
      const [rows, total] = await read.findAndCount(tables.routes, {
        where: { campaignId },
        order: { [sort]: order, id: order },
        ...bounds(query),
      })
      return { rows: await withCounts(campaignId, rows), total, page, pageSize }
    }
    const all = await withCounts(campaignId, await read.findBy(tables.routes, { campaignId }))
    const value = {
      codes: (r: Route) => r.codes,
      scans: (r: Route) => r.scans.scans,
      lastScan: (r: Route) => r.scans.lastAt,
    }[sort]
    return { rows: sortedPage(all, query, value), total: all.length, page, pageSize }
  })

  // Before the one below, whose parameter would take the word.
  mount(mounts, routesApi.names, async ({ query: { campaignId } }) => {
    const where = { campaignId, state: Not('deleted' as const) }
    return {
      rows: await read.find(tables.routes, {
        select: { id: true, name: true, destination: true, state: true },
        where,
        order: { name: 'asc', id: 'asc' },
      }),
    }
  })

  mount(mounts, routesApi.get, ({ params }) => whole(params.id))

  mount(mounts, routesApi.create, async ({ body, who }) => {
    checkDestination(body.destination, domains)
    const { id } = await database.write((manager) =>
      insertRoute(manager, body, { personId: who.person.id, at: Date.now() }),
    )
    live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    return whole(id)
  })

  mount(mounts, routesApi.change, async ({ params: { id }, body: { version, ...change }, who }) => {
    checkDestination(change.destination, domains)
    const outcome = await database.writeAfter(
      async () => {
        // What is printed must lead somewhere: a route goes only after its codes have.
        if (
          change.state === 'deleted' &&
          (await read.existsBy(tables.codes, { routeId: id, state: Not('deleted') }))
        )
          throw new Refusal(
            'taken',
            'Pieces still use this route. Move them to another one first, or pause the route.',
          )
        if (change.state === 'deleted') {
          const leading = await findRouteLeadingTo(read, id)
          if (leading)
            throw new Refusal(
              'taken',
              `A lane of the route “${leading.name}” leads on to this one. Lead it elsewhere first, or pause this route.`,
            )
        }
      },
      (manager) => changeRoute(manager, id, version, change, { personId: who.person.id, at: Date.now() }),
    )
    if (outcome === 'overtaken') throw overtaken('route', await whole(id))
    if (outcome === 'changed') {
      await doors.forget({ what: 'routes', routeIds: [id] })
      live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    }
    return whole(id)
  })

  mount(mounts, routesApi.revisions, ({ params, query }) =>
    listRevisions(database, 'route', params.id, query),
  )

  draftEndpoints(mounts, parts, whole)
  attentionEndpoint(mounts, parts)
  laneSetEndpoints(mounts, parts)
}
