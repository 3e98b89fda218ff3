import { Not } from 'typeorm'
import { readDestination, routesApi, type Route } from '@flimbo/core/routing'
import { bounds, missing, mount, overtaken, Refusal, sortedPage, wrongField, type Mounts } from '../api/index.ts'
import { tables, type Database, type RouteRow } from '../database/index.ts'
import { scopeOwner, tallyOf, type Reader, type TallyAmong } from '../results/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { forgetCodes, type Lookup } from './lookup.ts'
import { listRevisions } from './revisions.ts'
import { changeRoute, insertRoute } from './store.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly lookup: Lookup
  readonly live: LiveHub
  readonly domains: Origins
}

/** Everything that reaches the front door. */
interface Origins { origins(): readonly string[] }

/** Why an address may be no destination, in a sentence; null where it may. */
export function destinationFault(address: string, domains: Origins): string | null {
  const reading = readDestination(address, domains.origins())
  return reading.ok ? null : reading.sentence
}

/** Refuses a destination that leads back to the front door; the contract has checked the rest. @throws Refusal */
export function checkDestination(destination: string | undefined, domains: Origins, field = 'destination'): void {
  if (destination === undefined) return
  const fault = destinationFault(destination, domains)
  if (fault !== null) throw wrongField(field, fault)
}

export function routesEndpoints(mounts: Mounts, { database, reader, lookup, live, domains }: Parts): void {
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
    checkDestination(body.destination, domains)
    await scopeOwner(database, who.workspace.id, { campaignId: body.campaignId })
    const { id } = await database.write((manager) => insertRoute(manager, body, { personId: who.person.id, at: Date.now() }))
    live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    return whole(who.workspace.id, id)
  })

  mount(mounts, routesApi.change, async ({ params: { id }, body: { version, ...change }, who }) => {
    checkDestination(change.destination, domains)
    await routeOf(who.workspace.id, id)
    const outcome = await database.write(async (manager) => {
      // What is printed must lead somewhere: a route goes only after its codes have.
      if (change.state === 'deleted' && (await manager.existsBy(tables.codes, { routeId: id, state: Not('deleted') }))) throw new Refusal('taken', 'Pieces still use this route. Move them to another one first, or pause the route.')
      return changeRoute(manager, id, version, change, { personId: who.person.id, at: Date.now() })
    })
    if (outcome === 'overtaken') throw overtaken('route', await whole(who.workspace.id, id))
    if (outcome === 'changed') {
      const codes = await read.find(tables.codes, { select: { id: true }, where: { routeId: id } })
      await forgetCodes(database, lookup, codes.map(({ id: codeId }) => codeId))
      live.tell(who.workspace.id, { type: 'change', of: 'route', id })
    }
    return whole(who.workspace.id, id)
  })

  mount(mounts, routesApi.revisions, async ({ params, query, who }) => {
    await routeOf(who.workspace.id, params.id)
    return listRevisions(database, 'route', params.id, query)
  })
}
