import { dayIn, shiftDay } from '@flimbo/core/time'
import { daysAgainst, resultsApi } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { withinChannel } from './channel.ts'
import type { Reader } from '../reader/index.ts'

/** The table that sorts a workspace's visits into channels. */
export interface Channels {
  channelsOf(workspaceId: number): Promise<readonly ChannelRule[]>
}

/** Days shown where none are asked for. */
const USUAL_DAYS = 30

/** The endpoints of results, as `core`’s contract describes them. */
export function resultsEndpoints(
  mounts: Mounts,
  { reader, tagging }: { reader: Reader; tagging: Channels },
): void {
  mount(mounts, resultsApi.get, async ({ query: { compare, ...query }, who, campaign }) => {
    const { zone, utmCampaign } = campaign
    // The days, not the moment: what is asked again within a day is the same question.
    const to = query.to ?? dayIn(zone, Date.now())
    const from = query.from ?? shiftDay(to, 1 - USUAL_DAYS)
    const channels = await tagging.channelsOf(who.workspace.id)
    const folded = await reader.ask('foldedScans', who.workspace.id)
    try {
      const counted = await reader.ask('results', {
        ...query,
        from,
        to,
        ...(await withinChannel(reader, query, utmCampaign, channels)),
        campaign: utmCampaign,
        channels,
        zone,
        compare: compare === 'yes',
      })
      return { ...counted, rowsSince: folded?.before ?? null }
    } catch (error) {
      throw asFault(error, 'unit')
    }
  })

  mount(mounts, resultsApi.ask, async ({ body, who, campaign }) => {
    const { from, to, against, questions, ...of } = body
    const { workspace } = who
    const zone = campaign?.zone ?? workspace.zone
    const before = daysAgainst(against, { from, to })
    const folded = await reader.ask('foldedScans', workspace.id)
    const isAll = Object.values(of).every((id) => id === undefined)
    try {
      const answers = await reader.ask('answers', {
        workspaceId: workspace.id,
        within: isAll ? { workspaceId: workspace.id } : of,
        zone,
        from,
        to,
        before,
        channels: await tagging.channelsOf(workspace.id),
        questions,
      })
      return { zone, from, to, before, rowsSince: folded?.before ?? null, answers }
    } catch (error) {
      throw asFault(error, 'questions')
    }
  })
}

/** Too many pieces of time are the asker's to change. */
const asFault = (error: unknown, field: string): unknown =>
  error instanceof Error && error.name === 'TooManyBuckets' ? wrongField(field, error.message) : error
