import { boundNotices, routesApi } from '@flimbo/core/routing'
import { mount, type Mounts } from '../api/index.ts'
import { tables } from '../database/index.ts'
import { takenOf } from '../scans/index.ts'
import type { RoutingParts } from './endpoints.ts'
import { codesOnRoutes } from './sharing.ts'
import { forecast } from './whole.ts'

const ROUTES_MAX = 50

/** What of all routes' dates and limits needs somebody now. */
export function attentionEndpoint(mounts: Mounts, { database: { read }, reader }: RoutingParts): void {
  mount(mounts, routesApi.attention, async ({ who }) => {
    const campaigns = new Map(
      (await read.findBy(tables.campaigns, { workspaceId: who.workspace.id }))
        .filter(({ archivedAt }) => archivedAt === null)
        .map((campaign) => [campaign.id, campaign]),
    )
    // Only routes with a life are read; the others, nearly all of them, are left where they are.
    const bounded = await read
      .createQueryBuilder(tables.routes, 'r')
      .where(`r.campaignId IN (:...campaigns) AND r.state = 'live' AND r.rules NOT LIKE '%"life":null%'`, {
        campaigns: [0, ...campaigns.keys()],
      })
      .getMany()
    const codes = await codesOnRoutes(
      read,
      bounded.map(({ id }) => id),
    )
    const now = Date.now()
    const counts = await takenOf(
      read,
      bounded.map(({ id }) => id),
      now,
    )
    const rows = await Promise.all(
      bounded
        .filter(({ id }) => (codes.get(id) ?? 0) > 0)
        .map(async ({ id, name, campaignId, rules: { life } }) => {
          if (!life) return []
          const taken = counts.get(id) ?? { total: 0, today: 0 }
          const found =
            life.limit === null ? null : await forecast(reader, id, life.zone, life.limit - taken.total, now)
          const { name: campaignName = '', zone = 'UTC' } = campaigns.get(campaignId) ?? {}
          return boundNotices({ life, taken, forecast: found, now }).map((notice) => ({
            routeId: id,
            routeName: name,
            campaignId,
            campaignName,
            zone,
            codes: codes.get(id) ?? 0,
            limit: life.limit,
            ...notice,
            between: notice.between && [...notice.between],
          }))
        }),
    )
    return {
      rows: rows
        .flat()
        .sort((a, b) => Number(b.urgent) - Number(a.urgent) || (a.at ?? 0) - (b.at ?? 0))
        .slice(0, ROUTES_MAX),
    }
  })
}
