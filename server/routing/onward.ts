import { In, type EntityManager } from 'typeorm'
import { routesLedTo, type Rules } from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'
import { tables, type RouteRow } from '../database/index.ts'

const isBounded = ({ rules: { life, askLocation }, passwordHash }: Pick<RouteRow, 'rules' | 'passwordHash'>) =>
  passwordHash !== '' || askLocation !== null || (life !== null && (life.limit !== null || life.daily !== null))

/**
 * Refuses rules whose lanes lead to a route that does not exist in the workspace, leads back, or keeps limits,
 * a password or a question of its own; and limits on a route that others lead on to. @throws Refusal
 */
export async function checkOnward(manager: EntityManager, row: RouteRow, rules: Rules): Promise<void> {
  const campaign = await manager.findOneByOrFail(tables.campaigns, { id: row.campaignId })
  const campaigns = (await manager.find(tables.campaigns, { select: { id: true }, where: { workspaceId: campaign.workspaceId } })).map(({ id }) => id)
  const all = new Map((await manager.findBy(tables.routes, { campaignId: In(campaigns) })).map((each) => [each.id, each]))
  const leadsTo = (id: number) => (id === row.id ? routesLedTo(rules) : routesLedTo(all.get(id)?.rules ?? rules))
  for (const id of routesLedTo(rules)) {
    const target = all.get(id)
    if (!target || target.state === 'deleted') throw wrongField('rules', 'A lane leads to a route that does not exist. Choose another.')
    if (id === row.id) throw wrongField('rules', 'A lane leads back to its own route and would go in a circle.')
    if (isBounded(target)) throw wrongField('rules', `The route “${target.name}” keeps a limit, a password or a question of its own; lanes can lead only to routes without.`)
    const path = circleFrom(id, row.id, leadsTo)
    if (path) throw wrongField('rules', `The route “${target.name}” leads back to this one${path.length > 1 ? ` by way of “${path.slice(1).map((each) => all.get(each)?.name ?? '').join('”, “')}”` : ''}, and scans would go in a circle.`)
  }
  if (isBounded({ ...row, rules })) {
    const leading = [...all.values()].find((other) => other.id !== row.id && routesLedTo(other.rules).includes(row.id))
    if (leading) throw wrongField('rules', `The route “${leading.name}” leads on to this one, which can therefore keep no limit, password or question.`)
  }
}

/** Some route, not itself deleted, with a lane that leads on to another; null where there is none. */
export async function leadingTo(manager: EntityManager, routeId: number): Promise<RouteRow | null> {
  const some = await manager.createQueryBuilder(tables.routes, 'r').where("r.state <> 'deleted' AND r.rules LIKE :named", { named: `%"routeId":${String(routeId)}}%` }).getOne()
  return some && routesLedTo(some.rules).includes(routeId) ? some : null
}

/** The routes from one to another, both ends' steps in order; null where there is no way. */
function circleFrom(from: number, to: number, leadsTo: (id: number) => number[]): number[] | null {
  const seen = new Set<number>()
  const walk = (id: number): number[] | null => {
    if (seen.has(id)) return null
    seen.add(id)
    for (const next of leadsTo(id)) {
      if (next === to) return [id]
      const rest = walk(next)
      if (rest) return [id, ...rest]
    }
    return null
  }
  return walk(from)
}
