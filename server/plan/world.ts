import { slugIn } from '@flimbo/core/codes'
import { type KnownPiece, type Mapping } from '@flimbo/core/plan'
import { tagCounts, tagsKey } from '@flimbo/core/tagging'
import { slugHolders } from '../codes/index.ts'
import { tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import type { Reader } from '../reader/index.ts'
import type { Tagging } from '../tagging/index.ts'
import type { JudgeOrder } from './sheets.ts'

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
  return [...new Set(rows.map((row) => slugIn(row[at] ?? '')).filter((slug) => slug !== ''))]
}

/** Everything a dry run must know of a campaign and its workspace. */
export async function planWorld(
  { database: { read }, reader, domains, tagging }: WorldParts,
  campaign: CampaignRow,
  domainId: number,
  rows: readonly (readonly string[])[],
  mapping: Mapping,
): Promise<JudgeOrder['world']> {
  const [stored, routes, rules, values, held, styles] = await Promise.all([
    read.find(tables.codes, { where: { campaignId: campaign.id } }),
    read.findBy(tables.routes, { campaignId: campaign.id }),
    tagging.rulesOf(campaign.workspaceId),
    reader.ask('tagValues', campaign.workspaceId),
    slugHolders(read, domainId, slugsIn(rows, mapping)),
    read.findBy(tables.houseStyles, { workspaceId: campaign.workspaceId }),
  ])
  const routeOf = new Map(routes.map((route) => [route.id, route]))
  const there = stored.filter(({ state }) => state !== 'deleted')
  const sharing = new Map<number, number>()
  for (const { routeId } of there) sharing.set(routeId, (sharing.get(routeId) ?? 0) + 1)
  const nameOf = new Map<number | null, string>(styles.map(({ id, name }) => [id, name]))
  const pieces = there.map((row): KnownPiece => {
    const route = routeOf.get(row.routeId)
    return {
      ...row,
      campaign: campaign.utmCampaign,
      routeName: route?.name ?? '',
      destination: route?.destination ?? '',
      styleName: nameOf.get(row.styleId) ?? '',
      routeCodes: sharing.get(row.routeId) ?? 1,
      archived: row.archivedAt !== null,
    }
  })
  const counts = tagCounts(values)
  for (const piece of pieces) if (!piece.archived) counts.tags.set(...bumped(counts.tags, piece))
  const current = new Set(there.filter((row) => row.domainId === domainId).map(({ slug }) => slug))
  return {
    rules,
    campaign: campaign.utmCampaign,
    domainId,
    pieces,
    values: counts.values,
    sameTags: counts.tags,
    routes: routes
      .filter(({ state }) => state !== 'deleted')
      .map(({ id, name, destination }) => ({ id, name, destination })),
    styles: styles.map(({ id, name }) => ({ id, name })),
    taken: new Set([...held.keys()].filter((slug) => !current.has(slug))),
    doors: domains.origins(),
  }
}

function bumped(tags: ReadonlyMap<string, number>, piece: KnownPiece): [string, number] {
  const key = tagsKey(piece)
  return [key, (tags.get(key) ?? 0) + 1]
}
