import { In } from 'typeorm'
import { shortLink, type Code } from '@flimbo/core/codes'
import { compile, decide } from '@flimbo/core/routing'
import type { Tally } from '@flimbo/core/scans'
import type { Config } from '../config/index.ts'
import { tables, type CodeRow, type Database } from '../database/index.ts'
import { tallyOf } from '../results/index.ts'

/** Rows as the API shows them, in the same order: with their route, their final address and their counts. */
export async function codeViews(
  { read }: Pick<Database, 'read'>,
  { doorUrl }: Pick<Config, 'doorUrl'>,
  rows: readonly CodeRow[],
  tallies: ReadonlyMap<number, Tally>,
): Promise<Code[]> {
  const routeIds = [...new Set(rows.map((row) => row.routeId))]
  const campaignIds = [...new Set(rows.map((row) => row.campaignId))]
  const routes = new Map((await read.findBy(tables.routes, { id: In(routeIds) })).map((route) => [route.id, route]))
  const campaigns = new Map((await read.findBy(tables.campaigns, { id: In(campaignIds) })).map((campaign) => [campaign.id, campaign]))
  const sharing = await read.createQueryBuilder().select('c.routeId', 'routeId').addSelect('count(*)', 'n').from(tables.codes, 'c')
    .where("c.routeId IN (:...routeIds) AND c.state <> 'deleted'", { routeIds: [0, ...routeIds] }).groupBy('c.routeId').getRawMany<{ routeId: number; n: number }>()
  const shared = new Map(sharing.map(({ routeId, n }) => [routeId, n]))

  return rows.map((row) => {
    const route = routes.get(row.routeId)
    const campaign = campaigns.get(row.campaignId)
    if (!route || !campaign) throw new Error(`Code ${String(row.id)} has no route or no campaign`)
    const utm = { source: row.source, medium: row.medium, campaign: campaign.utmCampaign, term: row.term, content: row.content }
    const compiled = compile({ code: { state: 'live', utm }, route: { state: 'live', destination: route.destination } })
    const decision = decide(compiled, { query: '' })
    return {
      ...row,
      routeName: route.name,
      routeVersion: route.version,
      routeState: route.state,
      routeCodes: shared.get(row.routeId) ?? 0,
      shortLink: shortLink(doorUrl, row.slug),
      destination: route.destination,
      finalAddress: decision.kind === 'redirect' ? decision.address : '',
      clashes: [...compiled.tagged.clashes],
      campaign: campaign.utmCampaign,
      scans: tallyOf(tallies, row.id),
    }
  })
}
