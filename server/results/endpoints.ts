import { daysAgainst, resultsApi } from '@flimbo/core/results'
import type { ChannelRule } from '@flimbo/core/tagging'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import type { Reader } from '../reader/index.ts'
import { withinOf } from './scope.ts'

/** The table that sorts a workspace's visits into channels. */
export interface Channels {
  channelsOf(workspaceId: number): Promise<readonly ChannelRule[]>
}

/** Errors that say what to ask instead, by their names: they come from another thread. */
const TOO_MUCH: ReadonlySet<string> = new Set(['TooManyBuckets', 'TooManyPairs'])

/** The endpoints of results, as `core`’s contract describes them. */
export function resultsEndpoints(
  mounts: Mounts,
  { reader, tagging }: { reader: Reader; tagging: Channels },
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
    const { from, to, against, questions, ...of } = body
    const { workspace } = who
    const zone = campaign?.zone ?? workspace.zone
    const before = daysAgainst(against, { from, to })
    const folded = await reader.ask('foldedScans', workspace.id)
    try {
      const answers = await reader.ask('answers', {
        workspaceId: workspace.id,
        within: withinOf(of, workspace.id),
        zone,
        from,
        to,
        before,
        channels: await tagging.channelsOf(workspace.id),
        questions,
      })
      return { zone, from, to, before, rowsSince: folded?.before ?? null, answers }
    } catch (error) {
      // What is too much is the asker's to change.
      if (error instanceof Error && TOO_MUCH.has(error.name)) throw wrongField('questions', error.message)
      throw error
    }
  })
}
