import { In, Not, type EntityManager } from 'typeorm'
import { pagesApi, type Page, type PageContent } from '@flimbo/core/pages'
import { pagesLedTo } from '@flimbo/core/routing'
import { fewNamed, missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import {
  findAmong,
  insertedId,
  tables,
  type Database,
  type PageRow,
  type RouteRow,
} from '../database/index.ts'
import type { Doors } from '../line/index.ts'
import { storeChange, destinationFault } from '../routing/index.ts'
import type { LiveHub } from '../scans/index.ts'

interface Parts {
  readonly database: Database
  readonly doors: Doors
  readonly live: LiveHub
  readonly domains: { origins(): readonly string[] }
}

/** The pages of Flimbo's own that routes may lead to. */
export function pagesEndpoints(mounts: Mounts, { database, doors, live, domains }: Parts): void {
  const { read } = database

  const campaignsOf = async (manager: EntityManager, workspaceId: number) =>
    (await manager.find(tables.campaigns, { select: { id: true }, where: { workspaceId } })).map(
      ({ id }) => id,
    )

  /**
   * What leads to pages: routes by what is live of them, or by their sets; drafts and unused sets apart. Only routes
   * that name a page or use a set are read, and never while the write lock is held.
   */
  async function leading(workspaceId: number) {
    const routes = await read
      .createQueryBuilder(tables.routes, 'r')
      .where({ campaignId: In(await campaignsOf(read, workspaceId)), state: Not('deleted') })
      .andWhere(
        `(r.rules LIKE '%"pageId":%' OR r.rules LIKE '%"setId":%' OR r.draft LIKE '%"pageId":%' OR r.draft LIKE '%"setId":%')`,
      )
      .getMany()
    const sets = await read.findBy(tables.laneSets, { workspaceId })
    const bySet = new Map(sets.map(({ id, lanes }) => [id, pagesLedTo({ lanes, life: null })]))
    const pagesOf = (rules: RouteRow['rules']) => [
      ...pagesLedTo(rules),
      ...(rules.shared ? (bySet.get(rules.shared.setId) ?? []) : []),
    ]
    return {
      routesTo: (pageId: number) => routes.filter(({ rules }) => pagesOf(rules).includes(pageId)),
      othersTo: (pageId: number) => [
        ...routes
          .filter(({ draft }) => draft && pagesOf(draft.rules).includes(pageId))
          .map(({ name }) => name),
        ...sets.filter(({ id }) => bySet.get(id)?.includes(pageId)).map(({ name }) => name),
      ],
    }
  }

  async function view(workspaceId: number, rows: readonly PageRow[]): Promise<Page[]> {
    const { routesTo } = await leading(workspaceId)
    return rows.map((row) => ({ ...row, routes: routesTo(row.id).map(({ id, name }) => ({ id, name })) }))
  }

  async function one(workspaceId: number, id: number): Promise<Page> {
    const [page] = await view(workspaceId, [await read.findOneByOrFail(tables.pages, { id })])
    if (!page) throw missing('page')
    return page
  }

  function checkLinks(links: PageContent['links'] = []): void {
    for (const [i, { address }] of links.entries()) {
      const fault = destinationFault(address, domains)
      if (fault !== null) throw wrongField(`links.${String(i)}.address`, fault)
    }
  }

  mount(mounts, pagesApi.list, async ({ query: { campaignId }, who }) => {
    const {
      workspace: { id },
    } = who
    const rows = await findAmong(
      read,
      tables.pages,
      'campaignId',
      campaignId === undefined ? await campaignsOf(read, id) : [campaignId],
    )
    return { rows: (await view(id, rows)).sort((a, b) => a.name.localeCompare(b.name) || a.id - b.id) }
  })

  mount(mounts, pagesApi.create, async ({ body, who }) => {
    checkLinks(body.links)
    const at = Date.now()
    const id = await database.write(async (manager) =>
      insertedId(await manager.insert(tables.pages, { ...body, version: 1, createdAt: at, changedAt: at })),
    )
    live.tell(who.workspace.id, { type: 'change', of: 'page', id })
    return one(who.workspace.id, id)
  })

  mount(mounts, pagesApi.change, async ({ params: { id }, body: { version, ...change }, who }) => {
    const workspaceId = who.workspace.id
    checkLinks(change.links)
    const at = Date.now()
    const changed = await database.writeInTurns(async (manager, turns) => {
      const row = await read.findOneByOrFail(tables.pages, { id })
      if (row.version !== version) return null
      const { routesTo } = await leading(workspaceId)
      const routes = routesTo(id)
      await storeChange(
        manager,
        routes,
        () => manager.update(tables.pages, { id }, { ...change, version: version + 1, changedAt: at }),
        { personId: who.person.id, at },
        turns,
      )
      return routes
    })
    if (changed === null) throw overtaken('page', await one(workspaceId, id))
    await doors.forget({ what: 'routes', routeIds: changed.map((route) => route.id) })
    live.tell(workspaceId, { type: 'change', of: 'page', id })
    return one(workspaceId, id)
  })

  mount(mounts, pagesApi.remove, async ({ params: { id }, who }) => {
    await database.writeAfter(
      async () => {
        const { name } = await read.findOneByOrFail(tables.pages, { id })
        const { routesTo, othersTo } = await leading(who.workspace.id)
        const users = [...new Set([...routesTo(id).map((route) => route.name), ...othersTo(id)])]
        if (users.length > 0)
          throw new Refusal(
            'taken',
            `${fewNamed(users)} ${users.length === 1 ? 'leads' : 'lead'} to “${name}”. Lead ${users.length === 1 ? 'it' : 'them'} elsewhere first.`,
          )
      },
      (manager) => manager.delete(tables.pages, { id }),
    )
    live.tell(who.workspace.id, { type: 'change', of: 'page', id })
  })
}
