import { HIT, type VisitValues } from '@flimbo/core/visitTags'
import type { Database } from '../database/index.ts'
import type { Delivery } from '../jobs/index.ts'
import type { Reach } from '../reach/index.ts'
import { tagsOf } from './section.ts'
import { sendHit } from './send.ts'

/** Sends hits to the collector of their tag, each tag from a queue of its own. One may arrive twice, which its `visit` tells. */
export function hitDelivery({ read }: Pick<Database, 'read'>, reach: Reach): Delivery {
  return {
    kind: HIT,
    async open(workspaceId, topic) {
      const { tags } = await tagsOf(read, workspaceId)
      const tag = tags.find(({ id }) => id === topic)
      if (!tag) return 'gone'
      if (tag.resting) return null
      return ({ isTest, payload }, stopping) =>
        // Test scans are for rehearsing: no real collector hears of them.
        isTest && reach.standIn(new URL(tag.address)) === null
          ? Promise.resolve('')
          : // The front door wrote it, as what the tag is to tell.
            sendHit(tag, payload as VisitValues, reach, stopping)
    },
  }
}
