import { resultsApi } from '@flimbo/core/results'
import { mount, type Mounts } from '../api/index.ts'
import type { Reader } from '../reader/index.ts'
import type { AskFigures } from './askFigures.ts'
import { withinOf } from './scope.ts'

/** The endpoints of results, as `core`’s contract describes them. */
export function resultsEndpoints(
  mounts: Mounts,
  { reader, askFigures }: { reader: Reader; askFigures: AskFigures },
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

  mount(mounts, resultsApi.ask, ({ body, who, campaign }) => askFigures(who.workspace, campaign, body))
}
