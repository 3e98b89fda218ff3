import { quantity } from '@flimbo/core/formats'
import { leadsApi, leadStates, USUAL_STATES, type LeadStates } from '@flimbo/core/leads'
import { mount, Refusal, type Mounts } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'

/** The states of leads, as a section of a workspace's settings. */
export const LEAD_STATES: Section<LeadStates> = {
  name: 'leadStates',
  schema: leadStates,
  fallback: USUAL_STATES,
}

/** The endpoints of the states that leads are in. */
export function leadStateEndpoints(
  mounts: Mounts,
  { database, live }: { database: Database; live: LiveHub },
): void {
  const { read } = database

  mount(mounts, leadsApi.states, ({ who }) => readSetting(read, who.workspace.id, LEAD_STATES))

  mount(mounts, leadsApi.changeStates, async ({ body, who }) => {
    const kept = new Set(body.value.states.map(({ key }) => key))
    const { states } = (await readSetting(read, who.workspace.id, LEAD_STATES)).value
    for (const { key, name } of states) {
      if (kept.has(key)) continue
      const count = await read.countBy(tables.leads, { workspaceId: who.workspace.id, state: key })
      if (count > 0)
        throw new Refusal(
          'taken',
          `${quantity(count, 'lead is', 'leads are')} in the state “${name}”. Set them to another first.`,
        )
    }
    const stored = await writeSetting(database, who.workspace.id, LEAD_STATES, body)
    live.tell(who.workspace.id, { type: 'change', of: 'campaign', id: 0 })
    return stored
  })
}
