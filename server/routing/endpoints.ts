import { readDestination, routesApi, type Route } from '@flimbo/core/routing'
import { bounds, missing, mount, overtaken, sortedPage, wrongField, type Mounts } from '../api/index.ts'
import type { Config } from '../config/index.ts'
import { tables, type Database, type RouteRow } from '../database/index.ts'
import { scopeOwner, tallyOf, type Reader, type TallyAmong } from '../results/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Lookup } from './lookup.ts'
import { listRevisions } from './revisions.ts'
import { changeRoute, insertRoute } from './store.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly lookup: Lookup
  readonly live: LiveHub
  readonly config: Pick<Config, 'doorUrl'>
}

/** Refuses a destination that leads back to the front door; the contract has checked the rest. @throws Refusal */
export function checkDestination(destination: string | undefined, { doorUrl }: Pick<Config, 'doorUrl'>): void {
  if (destination === undefined) return
  const reading = readDestination(destination, [doorUrl])
  if (!reading.ok) throw wrongField('destination', reading.sentence)
}

export function routesEndpoints(mounts: Mounts, { database, reader, lookup, live, config }: Parts): void {
  const { read } = database

  async function withCounts(campaignId: number, rows: readonly RouteRow[], among: TallyAmong = { campaign: campaignId }): Promise<Route[]> {
    const [codes, tallies] = await Promise.all([
      read.createQueryBuilder().select('c.routeId', 'routeId').addSelect('count(*)', 'n').from(tables.codes, 'c')
        .where("c.campaignId = :campaignId AND c.state <> 'deleted'", { campaignId }).groupBy('c.routeId').getRawMany<{ routeId: number; n: number }>(),
      reader.ask('tallies', 'route', among),
    ])
    const codesOf = new Map(codes.map(({ routeId, n }) => [routeId, n]))
    return rows.map((row) => ({ ...row, codes: codesOf.get(row.id) ?? 0, scans: tallyOf(tallies, row.id) }))
  }

  async function routeOf(workspaceId: number, id: number): Promise<RouteRow> {
    const row = await read.findOneBy(tables.routes, { id })
    if (!row) throw missing('route')
    await scopeOwner(database, workspaceId, { routeId: id })
    return row
  }

  async function whole(workspaceId: number, id: number): Promise<Route> {
    const row = await routeOf(workspaceId, id)
    const [route] = await withCounts(row.campaignId, [row], { route: id })
    if (!route) throw missing('route')
    return route
  }

  mount(mounts, routesApi.list, async ({ query, who }) => {
    const { campaignId, page, pageSize, sort, order } = query
    await scopeOwner(database, who.workspace.id, { campaignId })
    if (sort === 'name' || sort === 'changedAt') {
      const [rows, total] = await read.findAndCount(tables.routes, { where: { campaignId }, order: { [sort]: order, id: order }, ...bounds(query) })
      return { rows: await withCounts(campaignId, rows), total, page, pageSize }
    }
    const all = await withCounts(campaignId, await read.findBy(tables.routes, { campaignId }))
    const value = { codes: (r: Route) => r.codes, scans: (r: Route) => r.scans.scans, lastScan: (r: Route) => r.scans.lastAt }[sort]
    return { rows: sortedPage(all, query, value), total: all.length, page, pageSize }
  })

  mount(mounts, routesApi.get, ({ params, who }) => whole(who.workspace.id, params.id))

  mount(mounts, routesApi.create, async ({ body, who }) => {
    checkDestination(body.destination, config)
    await scopeOwner(database, who.workspace.id, { campaignId: body.campaignId })
    const { id } = await database.write((manager) => insertRoute(manager, body, { personId: who.person.id, at: Date.now() }))
    live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    return whole(who.workspace.id, id)
  })

  mount(mounts, routesApi.change, async ({ params: { id }, body: { version, ...change }, who }) => {
    checkDestination(change.destination, config)
    await routeOf(who.workspace.id, id)
    const outcome = await database.write((manager) => changeRoute(manager, id, version, change, { personId: who.person.id, at: Date.now() }))
    if (outcome === 'overtaken') throw overtaken('route', await whole(who.workspace.id, id))
    if (outcome === 'changed') {
      const codes = await read.find(tables.codes, { select: { slug: true }, where: { routeId: id } })
      lookup.forget(codes.map(({ slug }) => slug))
      live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    }
    return whole(who.workspace.id, id)
  })

  mount(mounts, routesApi.revisions, async ({ params, query, who }) => {
    await routeOf(who.workspace.id, params.id)
    return listRevisions(database, 'route', params.id, query)
  })
}
