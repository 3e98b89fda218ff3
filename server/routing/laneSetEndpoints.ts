import { In, Not, type EntityManager } from 'typeorm'
import { laneSetsApi, type LaneSet } from '@flimbo/core/routing'
import { fewNamed, mount, overtaken, Refusal, type Mounts } from '../api/index.ts'
import { insertedId, tables, type LaneSetRow, type RouteRow } from '../database/index.ts'
import { checkAnswers } from './checkDestination.ts'
import type { RoutingParts } from './endpoints.ts'
import { checkPages } from './references.ts'
import { storeChange } from './store.ts'

/** Sets of lanes that many routes share. */
export function laneSetEndpoints(mounts: Mounts, { database, doors, live, domains }: RoutingParts): void {
  const { read } = database

  const campaignsOf = (manager: EntityManager, workspaceId: number) =>
    manager.findBy(tables.campaigns, { workspaceId })

  /** The routes of a workspace that use a set. */
  async function using(manager: EntityManager, workspaceId: number, setId: number): Promise<RouteRow[]> {
    const campaigns = (await campaignsOf(manager, workspaceId)).map(({ id }) => id)
    const some = await manager
      .createQueryBuilder(tables.routes, 'r')
      .where({ campaignId: In(campaigns), state: Not('deleted') })
      .andWhere(`r.rules LIKE '%"setId":%'`)
      .orderBy('r.name')
      .getMany()
    return some.filter(({ rules }) => rules.shared?.setId === setId)
  }

  async function view(
    workspaceId: number,
    { id, name, lanes, version, changedAt }: LaneSetRow,
  ): Promise<LaneSet> {
    const names = new Map(
      (await campaignsOf(read, workspaceId)).map((campaign) => [campaign.id, campaign.name]),
    )
    const routes = (await using(read, workspaceId, id)).map((route) => ({
      id: route.id,
      name: route.name,
      campaignId: route.campaignId,
      campaignName: names.get(route.campaignId) ?? '',
    }))
    return { id, name, lanes, version, changedAt, routes }
  }

  const setOf = (id: number): Promise<LaneSetRow> => read.findOneByOrFail(tables.laneSets, { id })

  mount(mounts, laneSetsApi.list, async ({ who }) => {
    const rows = await read.find(tables.laneSets, {
      where: { workspaceId: who.workspace.id },
      order: { name: 'asc', id: 'asc' },
    })
    return { rows: await Promise.all(rows.map((row) => view(who.workspace.id, row))) }
  })

  mount(mounts, laneSetsApi.create, async ({ body: { name, lanes }, who }) => {
    checkAnswers({ lanes, life: null }, domains)
    const at = Date.now()
    await checkPages(read, { lanes, life: null }, who.workspace.id)
    const id = await database.write(async (manager) =>
      insertedId(
        await manager.insert(tables.laneSets, {
          workspaceId: who.workspace.id,
          name,
          lanes,
          version: 1,
          createdAt: at,
          changedAt: at,
        }),
      ),
    )
    live.tell(who.workspace.id, { type: 'change', of: 'route', id: 0 })
    return view(who.workspace.id, await setOf(id))
  })

  mount(mounts, laneSetsApi.change, async ({ params: { id }, body: { version, ...change }, who }) => {
    const workspaceId = who.workspace.id
    if (change.lanes) checkAnswers({ lanes: change.lanes, life: null }, domains)
    if (change.lanes) await checkPages(read, { lanes: change.lanes, life: null }, workspaceId)
    const at = Date.now()
    const changed = await database.writeInTurns(async (manager, turns) => {
      const row = await setOf(id)
      if (row.version !== version) return null
      const routes = change.lanes ? await using(read, workspaceId, id) : []
      await storeChange(
        manager,
        routes,
        () => manager.update(tables.laneSets, { id }, { ...change, version: version + 1, changedAt: at }),
        { personId: who.person.id, at },
        turns,
      )
      return routes
    })
    if (changed === null) throw overtaken('set of lanes', await view(workspaceId, await setOf(id)))
    await doors.forget({ what: 'routes', routeIds: changed.map((route) => route.id) })
    live.tell(workspaceId, { type: 'change', of: 'route', id: 0 })
    return view(workspaceId, await setOf(id))
  })

  mount(mounts, laneSetsApi.remove, async ({ params: { id }, who }) => {
    await database.writeAfter(
      async () => {
        const { name } = await setOf(id)
        const routes = await using(read, who.workspace.id, id)
        const campaigns = (await campaignsOf(read, who.workspace.id)).map((campaign) => campaign.id)
        const drafts = (
          await read
            .createQueryBuilder(tables.routes, 'r')
            .where({ campaignId: In(campaigns) })
            .andWhere(`r.draft LIKE '%"setId":%'`)
            .getMany()
        ).filter(({ draft }) => draft?.rules.shared?.setId === id)
        const users = [...new Set([...routes, ...drafts].map((route) => route.name))]
        if (users.length > 0)
          throw new Refusal(
            'taken',
            `“${name}” is still used by ${fewNamed(users)}. Take it out of ${users.length === 1 ? 'that route' : 'those routes'} first.`,
          )
      },
      (manager) => manager.delete(tables.laneSets, { id }),
    )
    live.tell(who.workspace.id, { type: 'change', of: 'route', id: 0 })
  })
}
