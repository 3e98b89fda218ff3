import { In, Not, type EntityManager } from 'typeorm'
import { pagesLedTo } from '@flimbo/core/routing'
import { tables, type RouteRow } from '../database/index.ts'

/** What leads to pages of a workspace. */
export interface Leading {
  /** Routes that lead to a page by what is live of them, or by their sets. */
  readonly routesTo: (pageId: number) => RouteRow[]
  /** The names of what else would: drafts of routes, and sets of lanes that no route uses. */
  readonly othersTo: (pageId: number) => string[]
}

export const campaignsOf = async (manager: EntityManager, workspaceId: number): Promise<number[]> =>
  (await manager.find(tables.campaigns, { select: { id: true }, where: { workspaceId } })).map(({ id }) => id)

/** Finds what leads to pages. Only routes that name a page or use a set are read, and never while the write lock is held. */
export async function findLeading(read: EntityManager, workspaceId: number): Promise<Leading> {
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
  const live = new Map<number, RouteRow[]>()
  const others = new Map<number, string[]>()
  const add = <T>(to: Map<number, T[]>, pageIds: readonly number[], what: T) => {
    for (const id of new Set(pageIds)) {
      const all = to.get(id)
      if (all) all.push(what)
      else to.set(id, [what])
    }
  }
  // Once for all pages: of a team, there are as many as there are routes.
  for (const route of routes) {
    add(live, pagesOf(route.rules), route)
    if (route.draft) add(others, pagesOf(route.draft.rules), route.name)
  }
  for (const { id, name } of sets) add(others, bySet.get(id) ?? [], name)
  return {
    routesTo: (pageId) => live.get(pageId) ?? [],
    othersTo: (pageId) => others.get(pageId) ?? [],
  }
}

/** The names of other pages that lead to one, such as those whose form it follows. */
export async function pagesLeadingTo(
  read: EntityManager,
  workspaceId: number,
  pageId: number,
): Promise<string[]> {
  const rows = await read
    .createQueryBuilder(tables.pages, 'p')
    .select(['p.id', 'p.name', 'p.summary'])
    .where({ campaignId: In(await campaignsOf(read, workspaceId)) })
    .andWhere(`p.summary LIKE '%"pages":[_%' AND p.summary NOT LIKE '%"pages":[]%'`)
    .getMany()
  return rows
    .filter(({ id, summary }) => id !== pageId && summary.pages?.includes(pageId) === true)
    .map(({ name }) => name)
}
