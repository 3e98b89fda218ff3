import { checksApi, type Check } from '@flimbo/core/checks'
import { mount, type Mounts } from '../api/index.ts'
import { findAmong, tables, type Database } from '../database/index.ts'
import { codesOnRoutes } from '../routing/index.ts'
import type { JobViewer } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { checkView, type DestinationChecker } from './checker.ts'

const SHOWN = 20
const FAILING_MAX = 200

interface Parts {
  readonly database: Database
  readonly checker: DestinationChecker
  readonly live: LiveHub
  readonly jobView: JobViewer
}

/** The endpoints of checks, as `core`’s contract describes them. */
export function checksEndpoints(mounts: Mounts, { database, checker, live, jobView }: Parts): void {
  const { read } = database

  async function checked(workspaceId: number, routeId: number, work: () => Promise<Check>): Promise<Check> {
    const result = await work()
    live.tell(workspaceId, { type: 'change', of: 'route', id: routeId })
    return result
  }

  mount(mounts, checksApi.code, async ({ params: { id }, who, campaign }) => {
    const code = await read.findOneByOrFail(tables.codes, { id })
    const route = await read.findOneByOrFail(tables.routes, { id: code.routeId })
    return checked(who.workspace.id, route.id, () => checker.check({ route, campaign, code, own: true }))
  })

  mount(mounts, checksApi.route, async ({ params: { id }, who, campaign }) => {
    const route = await read.findOneByOrFail(tables.routes, { id })
    const code = await checker.sample(id)
    return checked(who.workspace.id, id, () => checker.check({ route, campaign, code, own: false }))
  })

  mount(mounts, checksApi.latest, async ({ params: { id } }) => {
    return {
      rows: (
        await read.find(tables.checks, { where: { routeId: id }, order: { id: 'desc' }, take: SHOWN })
      ).map(checkView),
    }
  })

  mount(mounts, checksApi.begin, async ({ who, campaign }) =>
    jobView.one(await checker.begin(who.workspace.id, campaign, who.person.id), who),
  )

  mount(mounts, checksApi.failing, async ({ who }) => {
    const campaigns = new Map(
      (await read.findBy(tables.campaigns, { workspaceId: who.workspace.id }))
        .filter(({ archivedAt }) => archivedAt === null)
        .map((campaign) => [campaign.id, campaign]),
    )
    const newest = await read
      .createQueryBuilder()
      .select('max(k.id)', 'id')
      .from(tables.checks, 'k')
      .innerJoin(tables.routes.options.name, 'r', 'r.id = k.routeId')
      .where("r.campaignId IN (:...campaigns) AND r.state = 'live'", { campaigns: [0, ...campaigns.keys()] })
      .groupBy('k.routeId')
      .addGroupBy('k.own')
      .addGroupBy('CASE WHEN k.own THEN k.codeId END')
      .getRawMany<{ id: number }>()
    const bad = (
      await findAmong(
        read,
        tables.checks,
        'id',
        newest.map(({ id }) => id),
      )
    ).filter(({ verdict }) => verdict !== 'fine')
    const routes = new Map(
      (
        await findAmong(
          read,
          tables.routes,
          'id',
          bad.map(({ routeId }) => routeId),
        )
      ).map((route) => [route.id, route]),
    )
    const codes = await codesOnRoutes(read, routes.keys())
    const rows = bad.flatMap((row) => {
      const route = routes.get(row.routeId)
      const campaign = route && campaigns.get(route.campaignId)
      // A destination that was changed since says nothing any more.
      if (!route || !campaign || !(codes.get(route.id) ?? 0) || row.at < route.changedAt) return []
      return [
        {
          ...checkView(row),
          campaignId: campaign.id,
          campaignName: campaign.name,
          routeName: route.name,
          zone: campaign.zone,
          codes: codes.get(route.id) ?? 0,
        },
      ]
    })
    return {
      rows: rows
        .sort((a, b) => (a.failingSince ?? Infinity) - (b.failingSince ?? Infinity))
        .slice(0, FAILING_MAX),
    }
  })
}
