import { In, type EntityManager } from 'typeorm'
import { routesLedTo, type Rules } from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'
import { tables, type RouteRow } from '../database/index.ts'
import { routesFrom } from './knownRoutes.ts'

const isBounded = ({
  rules: { life, askLocation },
  passwordHash,
}: Pick<RouteRow, 'rules' | 'passwordHash'>) =>
  passwordHash !== '' ||
  askLocation !== null ||
  (life !== null && (life.limit !== null || life.daily !== null))

/** The campaigns of the workspace that a campaign is in. */
async function campaignsBeside(read: EntityManager, campaignId: number): Promise<number[]> {
  const { workspaceId } = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
  return (await read.find(tables.campaigns, { select: { id: true }, where: { workspaceId } })).map(
    ({ id }) => id,
  )
}

/**
 * Refuses rules whose lanes lead to a route that does not exist in the workspace, leads back, or keeps limits,
 * a password or a question of its own; and limits on a route that others lead on to. Reads only the routes that
 * are led to, and looks through the others by what their rules say. @throws Refusal
 */
export async function checkOnward(read: EntityManager, row: RouteRow, rules: Rules): Promise<void> {
  const targets = routesLedTo(rules)
  if (targets.length > 0) {
    const campaigns = new Set(await campaignsBeside(read, row.campaignId))
    // The route itself with its new rules: what it leads to, and what that leads to.
    const all = await routesFrom({ read }, [{ ...row, rules }])
    for (const id of targets) checkTarget(row, all.get(id), id, campaigns, all)
  }
  if (!isBounded({ ...row, rules })) return
  const leading = await findRouteLeadingTo(read, row.id)
  if (leading)
    throw wrongField(
      'rules',
      `The route “${leading.name}” leads on to this one, which can therefore keep no limit, password or question.`,
    )
}

function checkTarget(
  row: RouteRow,
  target: RouteRow | undefined,
  id: number,
  campaigns: ReadonlySet<number>,
  all: ReadonlyMap<number, RouteRow>,
): void {
  if (!target || target.state === 'deleted' || !campaigns.has(target.campaignId))
    throw wrongField('rules', 'A lane leads to a route that does not exist. Choose another.')
  if (id === row.id) throw wrongField('rules', 'A lane leads back to its own route and would go in a circle.')
  if (isBounded(target))
    throw wrongField(
      'rules',
      `The route “${target.name}” keeps a limit, a password or a question of its own; lanes can lead only to routes without.`,
    )
  const path = circleFrom(id, row.id, (from) => routesLedTo(all.get(from)?.rules ?? { lanes: [] }))
  if (!path) return
  const byWayOf = path
    .slice(1)
    .map((each) => all.get(each)?.name ?? '')
    .join('”, “')
  throw wrongField(
    'rules',
    `The route “${target.name}” leads back to this one${byWayOf === '' ? '' : ` by way of “${byWayOf}”`}, and scans would go in a circle.`,
  )
}

/** Some route of the same workspace, not itself deleted, with a lane that leads on to another; null where there is none. */
export async function findRouteLeadingTo(manager: EntityManager, routeId: number): Promise<RouteRow | null> {
  const route = await manager.findOneBy(tables.routes, { id: routeId })
  if (!route) return null
  const some = await manager
    .createQueryBuilder(tables.routes, 'r')
    .where({ campaignId: In(await campaignsBeside(manager, route.campaignId)) })
    .andWhere("r.id <> :routeId AND r.state <> 'deleted' AND r.rules LIKE :named", {
      routeId,
      named: `%"routeId":${String(routeId)}}%`,
    })
    .getMany()
  return some.find(({ rules }) => routesLedTo(rules).includes(routeId)) ?? null
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
