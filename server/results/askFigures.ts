import type { EntityManager } from 'typeorm'
import { daysAgainst, isOfOther, type Answers, type Asked } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import { dayIn } from '@flimbo/core/time'
import { tables, type CampaignRow, type WorkspaceRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { withinOf } from './scope.ts'
import { unlessTooMuch } from './tooMuch.ts'

/** The table that sorts a workspace's visits into channels. */
export interface Channels {
  channelsOf(workspaceId: number): Promise<readonly ChannelRule[]>
}

interface Parts {
  readonly read: EntityManager
  readonly reader: Reader
  readonly tagging: Channels
}

/** The first day of a campaign: as it was planned, or else the day it was made. */
const startOf = ({ startsOn, createdAt }: CampaignRow, zone: string) => startsOn ?? dayIn(zone, createdAt)

/** Asks for figures as screens and reports both do: `campaign` is the one that they are of, where there is one. */
export type AskFigures = (
  workspace: Pick<WorkspaceRow, 'id' | 'zone'>,
  campaign: CampaignRow | null,
  asked: Asked,
) => Promise<Answers>

/** @throws Refusal where what is asked has too many parts, or the other campaign is not there */
export function figuresAsker({ read, reader, tagging }: Parts): AskFigures {
  return async (workspace, campaign, asked) => {
    const { from, to, against, otherCampaignId, questions, ...of } = asked
    const zone = campaign?.zone ?? workspace.zone
    const other =
      otherCampaignId !== undefined && isOfOther(against)
        ? await read.findOneByOrFail(tables.campaigns, { id: otherCampaignId, workspaceId: workspace.id })
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
    return {
      ...{ zone, from, to },
      before: before && { ...before, campaign: other?.name ?? null },
      rowsSince: folded?.before ?? null,
      answers,
    }
  }
}
