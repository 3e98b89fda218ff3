import { taggingApi, type TagValues } from '@flimbo/core/tagging'
import { mount, type Mounts } from '../api/index.ts'
import type { Database } from '../database/index.ts'
import { type Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { readSetting, writeSetting } from '../workspace/index.ts'
import { CHANNELS, RULES, type Tagging } from './tagging.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly reviewer: Reader
  readonly tagging: Tagging
  readonly live: LiveHub
}

/** So many values of a field are offered; the rest are found by typing them. */
const OFFERED_MAX = 500

/** The endpoints of tagging, as `core`’s contract describes them. */
export function taggingEndpoints(mounts: Mounts, { database, reader, reviewer, tagging, live }: Parts): void {
  mount(mounts, taggingApi.rules, ({ who }) => readSetting(database.read, who.workspace.id, RULES))
  mount(mounts, taggingApi.changeRules, async ({ body, who }) => {
    const stored = await writeSetting(database, who.workspace.id, RULES, body)
    live.tell(who.workspace.id, { type: 'change', of: 'campaign', id: 0 })
    return stored
  })

  mount(mounts, taggingApi.channels, async ({ who }) => {
    const { value, version } = await readSetting(database.read, who.workspace.id, CHANNELS)
    return { value: [...value], version }
  })
  mount(mounts, taggingApi.changeChannels, async ({ body, who }) => {
    const { value, version } = await writeSetting(database, who.workspace.id, CHANNELS, body)
    live.tell(who.workspace.id, { type: 'change', of: 'campaign', id: 0 })
    return { value: [...value], version }
  })

  mount(mounts, taggingApi.values, async ({ who }) => {
    const values = await reader.ask('tagValues', who.workspace.id)
    const offered = (counts: ReadonlyMap<string, number>) =>
      [...counts].slice(0, OFFERED_MAX).map(([value, pieces]) => ({ value, pieces }))
    return Object.fromEntries(
      Object.entries(values).map(([field, counts]) => [field, offered(counts)]),
    ) as TagValues
  })

  mount(mounts, taggingApi.review, async ({ campaign }) =>
    reviewer.ask('review', await tagging.questionOf(campaign)),
  )
}
