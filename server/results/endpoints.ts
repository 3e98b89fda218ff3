import { daysAgainst, isOfOther, resultsApi } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import { mount, type Mounts } from '../api/index.ts'
import { dayIn } from '@flimbo/core/time'
import { tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { withinOf } from './scope.ts'
import { unlessTooMuch } from './tooMuch.ts'

/** The table that sorts a workspace's visits into channels. */
export interface Channels {
  channelsOf(workspaceId: number): Promise<readonly ChannelRule[]>
}

/** The first day of a campaign: as it was planned, or else the day it was made. */
const startOf = ({ startsOn, createdAt }: CampaignRow, zone: string) => startsOn ?? dayIn(zone, createdAt)

/** The endpoints of results, as `core`’s contract describes them. */
export function resultsEndpoints(
  mounts: Mounts,
  { database: { read }, reader, tagging }: { database: Database; reader: Reader; tagging: Channels },
): void {
  mount(mounts, resultsApi.get, async ({ query: { from, to, ...of }, who, campaign }) => {
    const zone = campaign?.zone ?? who.workspace.zone
    const folded = await reader.ask('foldedScans', who.workspace.id)
    const within = withinOf(of, who.workspace.id)
    return {
      ...(await reader.ask('summary', { ...within, forWorkspace: who.workspace.id, zone, from, to })),
      zone,
      rowsSince: folded?.before ?? null,
    }
  })

  mount(mounts, resultsApi.ask, async ({ body, who, campaign }) => {
    const { from, to, against, otherCampaignId, questions, ...of } = body
    const { workspace } = who
    const zone = campaign?.zone ?? workspace.zone
    const other =
      otherCampaignId !== undefined && isOfOther(against)
        ? await read.findOneByOrFail(tables.campaigns, { id: otherCampaignId })
        : null
    const starts = campaign && other ? { own: startOf(campaign, zone), other: startOf(other, zone) } : null
    const before = daysAgainst(against, { from, to }, starts)
    const folded = await reader.ask('foldedScans', workspace.id)
    const channels = await tagging.channelsOf(workspace.id)
    const answers = await unlessTooMuch('questions', () =>
      reader.ask('answers', {
        workspaceId: workspace.id,
        within: withinOf(of, workspace.id),
        zone,
        from,
        to,
        before,
        ...(other ? { other: { campaignId: other.id } } : {}),
        channels,
        questions,
      }),
    )
    return { zone, from, to, before, rowsSince: folded?.before ?? null, answers }
  })
}
