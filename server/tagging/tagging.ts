import {
  channelOf,
  channelRules,
  houseRules,
  lint,
  tagContext,
  tagCounts,
  DEFAULT_CHANNELS,
  DEFAULT_RULES,
  type ChannelRule,
  type Finding,
  type HouseRules,
  type TagContext,
  type TaggedPiece,
} from '@flimbo/core/tagging'
import { forAll } from '../api/index.ts'
import type { CampaignRow, CodeRow, Database, RouteRow } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import type { TagQuestion } from './queries.ts'
import type { LiveHub } from '../scans/index.ts'
import { readSetting, type Section } from '../workspace/index.ts'

export const RULES: Section<HouseRules> = { name: 'house-rules', schema: houseRules, fallback: DEFAULT_RULES }
export const CHANNELS: Section<readonly ChannelRule[]> = {
  name: 'channels',
  schema: channelRules,
  fallback: DEFAULT_CHANNELS,
}

type Campaign = Pick<CampaignRow, 'id' | 'workspaceId' | 'utmCampaign'>

/** What the house says of tags, kept until something in the workspace changes. */
export interface Tagging {
  rulesOf(workspaceId: number): Promise<HouseRules>
  channelsOf(workspaceId: number): Promise<readonly ChannelRule[]>
  /** Everything a whole campaign is looked over with. */
  questionOf(campaign: Campaign): Promise<TagQuestion>
  /** Looks pieces of a campaign over. */
  lookerOf(campaign: Campaign): Promise<(piece: TaggedPiece) => { findings: Finding[]; channel: string }>
}

/** A stored piece as the linter reads it. */
export function taggedPiece(
  row: CodeRow,
  route: Pick<RouteRow, 'name' | 'destination'>,
  utmCampaign: string,
): TaggedPiece {
  const { name, place, medium, source, term, content, extra, reference, key, slug } = row
  return {
    name,
    place,
    size: row.sizeMm,
    medium,
    source,
    term,
    content,
    extra,
    reference,
    key,
    link: slug,
    route: route.name,
    destination: route.destination,
    campaign: utmCampaign,
  }
}

/** What the linter and the forms know of a workspace: its rules, its channels and the values in use. */
export function tagging({ read }: Pick<Database, 'read'>, reader: Reader, live: LiveHub): Tagging {
  const kept = new Map<string, { edition: number; value: Promise<unknown> }>()

  /** Works something out once for each edition of a workspace. */
  function once<T>(workspaceId: number, name: string, work: () => Promise<T>): Promise<T> {
    const edition = live.edition(workspaceId)
    const key = `${String(workspaceId)} ${name}`
    const known = kept.get(key)
    // Only `work` of the same name was kept under this key, so the value is of its type.
    if (known?.edition === edition) return known.value as Promise<T>
    const value = forAll(work)
    kept.set(key, { edition, value })
    value.catch(() => {
      kept.delete(key)
    })
    return value
  }

  const rulesOf = (workspaceId: number) =>
    once(workspaceId, 'rules', async () => (await readSetting(read, workspaceId, RULES)).value)
  const channelsOf = (workspaceId: number) =>
    once(workspaceId, 'channels', async () => (await readSetting(read, workspaceId, CHANNELS)).value)

  async function questionOf({ id, workspaceId, utmCampaign }: Campaign): Promise<TagQuestion> {
    const edition = live.edition(workspaceId)
    return {
      workspaceId,
      campaignId: id,
      campaign: utmCampaign,
      rules: await rulesOf(workspaceId),
      channels: await channelsOf(workspaceId),
      edition,
    }
  }

  return {
    rulesOf,
    channelsOf,
    questionOf,
    async lookerOf(campaign) {
      const question = await questionOf(campaign)
      const context = await once<TagContext>(
        campaign.workspaceId,
        `context ${String(campaign.id)}`,
        async () => {
          const { values, sameTags } = await reader.ask('tagContext', question)
          return tagContext({
            rules: question.rules,
            campaign: campaign.utmCampaign,
            counts: tagCounts(values, sameTags),
            counted: true,
          })
        },
      )
      return (piece) => ({ findings: lint(piece, context), channel: channelOf(piece, question.channels) })
    },
  }
}
