import { canonicalSlug } from '@flimbo/core/codes'
import { fileColumns, type KnownPiece, type Mapping, type PlanWorld } from '@flimbo/core/plan'
import { tagCounts, tagsKey } from '@flimbo/core/tagging'
import { holders } from '../codes/index.ts'
import { tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import type { Reader } from '../results/index.ts'
import { destinationFault } from '../routing/index.ts'
import type { Tagging } from '../tagging/index.ts'

export interface WorldParts {
  readonly database: Database
  readonly reader: Reader
  readonly domains: Domains
  readonly tagging: Tagging
}

/** The slugs that stand in a file, whole short links taken for their ends. */
function slugsIn(rows: readonly (readonly string[])[], mapping: Mapping): string[] {
  const at = mapping.indexOf('slug')
  if (at < 0) return []
  return [...new Set(rows.map((row) => canonicalSlug((row[at] ?? '').trim().replace(/^.*\//, ''))).filter((slug) => slug !== ''))]
}

/** Everything a dry run must know of a campaign and its workspace. */
export async function planWorld({ database: { read }, reader, domains, tagging }: WorldParts, campaign: CampaignRow, domainId: number, rows: readonly (readonly string[])[], mapping: Mapping): Promise<PlanWorld> {
  const [stored, routes, rules, values, held] = await Promise.all([
    read.find(tables.codes, { where: { campaignId: campaign.id } }),
    read.findBy(tables.routes, { campaignId: campaign.id }),
    tagging.rulesOf(campaign.workspaceId),
    reader.ask('tagValues', campaign.workspaceId),
    holders(read, domainId, slugsIn(rows, mapping)),
  ])
  const routeOf = new Map(routes.map((route) => [route.id, route]))
  const there = stored.filter(({ state }) => state !== 'deleted')
  const sharing = new Map<number, number>()
  for (const { routeId } of there) sharing.set(routeId, (sharing.get(routeId) ?? 0) + 1)
  const pieces = there.map((row): KnownPiece => {
    const route = routeOf.get(row.routeId)
    return { ...row, campaign: campaign.utmCampaign, routeName: route?.name ?? '', destination: route?.destination ?? '', routeCodes: sharing.get(row.routeId) ?? 1, archived: row.archivedAt !== null }
  })
  const counts = tagCounts(values)
  for (const piece of pieces) if (!piece.archived) counts.tags.set(...bumped(counts.tags, piece))
  const current = new Set(there.filter((row) => row.domainId === domainId).map(({ slug }) => slug))
  return {
    columns: fileColumns(rules.parameters), rules, campaign: campaign.utmCampaign, pieces, counts,
    routes: routes.filter(({ state }) => state !== 'deleted'),
    taken: new Set([...held.keys()].filter((slug) => !current.has(slug))),
    destinationFault: (address) => destinationFault(address, domains),
  }
}

function bumped(tags: ReadonlyMap<string, number>, piece: KnownPiece): [string, number] {
  const key = tagsKey(piece)
  return [key, (tags.get(key) ?? 0) + 1]
}
