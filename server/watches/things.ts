import type { EntityManager } from 'typeorm'
import { type Dimension } from '@flimbo/core/dimensions'
import { ROWS_MAX } from '@flimbo/core/results'
import { dayIn } from '@flimbo/core/time'
import { tables, type CampaignRow, type WatchRow } from '../database/index.ts'

type Ref = Pick<WatchRow, 'of' | 'refId'>

/** What a watch is of. */
export interface WatchedThing {
  readonly name: string
  readonly campaign: CampaignRow
  /** Whether scans could be expected on it now. */
  readonly isLive: boolean
}

/** Finds what a watch is of; null where it is gone. */
export async function thingOf(
  read: EntityManager,
  { of, refId }: Ref,
  now: number,
): Promise<WatchedThing | null> {
  const code = of === 'code' ? await read.findOneBy(tables.codes, { id: refId }) : null
  const routeId = of === 'route' ? refId : code?.routeId
  const route = routeId === undefined ? null : await read.findOneBy(tables.routes, { id: routeId })
  const campaignId = of === 'campaign' ? refId : (code ?? route)?.campaignId
  const campaign =
    campaignId === undefined ? null : await read.findOneBy(tables.campaigns, { id: campaignId })
  const thing = { campaign, route, code }[of]
  if (!campaign || !thing) return null
  const today = dayIn(campaign.zone, now)
  const isInSeason =
    campaign.archivedAt === null &&
    (campaign.startsOn === null || campaign.startsOn <= today) &&
    (campaign.endsOn === null || campaign.endsOn >= today)
  return { name: thing.name, campaign, isLive: isInSeason && (route === null || route.state === 'live') }
}

/** What the figures of a watch are asked by, but the days and the questions. */
export const figuresAsked = ({ of, refId, workspaceId }: WatchRow, { campaign }: WatchedThing) => ({
  workspaceId,
  within: { campaign: { campaignId: refId }, route: { routeId: refId }, code: { codeId: refId } }[of],
  zone: campaign.zone,
  channels: [],
})
/** A question that is narrowed by nothing. */
export const plainQuestion = (...by: Dimension[]) =>
  ({ what: 'scans', by, filters: {}, top: ROWS_MAX }) as const
