import type { Scope } from '@flimbo/core/scans'
import type { ChannelRule } from '@flimbo/core/tagging'
import type { Within } from './scope.ts'
import type { Reader } from '../reader/index.ts'

/** In addresses this stands for the channel that has no name: what no line of the table takes. */
const NONE = '-'

/** Narrows a scope to the codes of a channel, where it names one. */
export async function withinChannel(
  reader: Reader,
  { channel, ...scope }: Scope,
  campaign: string,
  channels: readonly ChannelRule[],
): Promise<Within> {
  if (channel === undefined) return scope
  return {
    ...scope,
    codeIds: await reader.ask('channelCodes', scope, campaign, channels, channel === NONE ? '' : channel),
  }
}
