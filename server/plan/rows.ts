import { tag, utmOf } from '@flimbo/core/tagging'
import { setImmediate } from 'node:timers/promises'
import { In } from 'typeorm'
import { shortLink } from '@flimbo/core/codes'
import { escapeFormula, type PlanColumn, type PlanRow } from '@flimbo/core/plan'
import {
  tables,
  type CampaignRow,
  type CodeRow,
  type RouteRow,
  type ShortLinkRow,
} from '../database/index.ts'
import { styleNames } from '../houseStyles/index.ts'
import type { WorldParts } from './world.ts'

const AT_ONCE = 500

/** A stored piece with what stands around it, as exports need it. */
export interface Exported {
  readonly row: CodeRow
  readonly route: RouteRow
  readonly campaign: CampaignRow
  readonly shortLink: string
  /** Of its house style; empty for the plain one. */
  readonly styleName: string
  readonly oldLinks: readonly ShortLinkRow[]
}

/** Pieces by their numbers, some at a time, so that phones and other people get their turns. */
export async function* exported(
  { database: { read }, domains }: WorldParts,
  ids: readonly number[],
): AsyncGenerator<Exported, void, undefined> {
  const campaigns = new Map<number, CampaignRow>()
  for (let i = 0; i < ids.length; i += AT_ONCE) {
    const some = ids.slice(i, i + AT_ONCE)
    const rows = new Map((await read.findBy(tables.codes, { id: In(some) })).map((row) => [row.id, row]))
    const routes = new Map(
      (
        await read.findBy(tables.routes, {
          id: In([...new Set([...rows.values()].map(({ routeId }) => routeId))]),
        })
      ).map((route) => [route.id, route]),
    )
    const links = await read.findBy(tables.shortLinks, { codeId: In(some) })
    const styles = await styleNames(read, [...rows.values()])
    for (const { campaignId } of rows.values()) {
      if (!campaigns.has(campaignId))
        campaigns.set(campaignId, await read.findOneByOrFail(tables.campaigns, { id: campaignId }))
    }
    const linksOf = new Map<number, ShortLinkRow[]>()
    for (const link of links) linksOf.set(link.codeId, [...(linksOf.get(link.codeId) ?? []), link])
    for (const id of some) {
      const row = rows.get(id)
      const route = row && routes.get(row.routeId)
      const campaign = row && campaigns.get(row.campaignId)
      if (!row || !route || !campaign) continue
      yield {
        row,
        route,
        campaign,
        styleName: styles.get(row.styleId) ?? '',
        shortLink: shortLink(domains.origin(row.domainId), row.slug),
        oldLinks: (linksOf.get(id) ?? []).filter(
          ({ domainId, slug }) => domainId !== row.domainId || slug !== row.slug,
        ),
      }
    }
    await setImmediate()
  }
}

/** A piece as the columns of the plan write it. */
export function planRow({ row, route, campaign, styleName }: Exported): PlanRow {
  return {
    ...row,
    styleName,
    routeName: route.name,
    destination: route.destination,
    campaign: campaign.utmCampaign,
  }
}

/** The columns of an export: those of the plan, with the two coordinates apart, so that what goes out comes in again. */
export function exportColumns(all: readonly PlanColumn[]): readonly PlanColumn[] {
  return all.filter(({ id }) => id !== 'coordinates')
}

/** A cell of a file that no spreadsheet takes for a formula. */
export function cellOf(column: PlanColumn, row: PlanRow): string {
  const text = column.write(row)
  return column.numeric ? text : escapeFormula(text)
}

export const LINK_HEADINGS = [
  'Short link',
  'In use',
  'Piece',
  'Campaign',
  'Route',
  'Destination',
  'Final address',
  'State',
  'Issued (UTC)',
]

/** A piece's short links as rows: the one in use, then older ones that go on working. */
export function linkRows(each: Exported, origin: (domainId: number) => string): string[][] {
  const { row, route, campaign } = each
  const leads = row.otherwise === '' ? route.destination : row.otherwise
  const rest = [
    row.name,
    campaign.name,
    route.name,
    leads,
    tag(new URL(leads), utmOf(row, campaign.utmCampaign), row.extra).address,
    row.archivedAt === null ? row.state : `${row.state}, archived`,
  ].map(escapeFormula)
  const line = (link: string, inUse: string, at: number) => [link, inUse, ...rest, new Date(at).toISOString()]
  return [
    line(each.shortLink, 'yes', row.createdAt),
    ...each.oldLinks.map(({ domainId, slug, since }) =>
      line(shortLink(origin(domainId), slug), 'replaced, still works', since),
    ),
  ]
}
