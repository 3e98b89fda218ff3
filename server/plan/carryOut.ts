import type { EntityManager } from 'typeorm'
import type { CodeCellChange } from '@flimbo/core/codes'
import type { PlanLine, WantedRoute } from '@flimbo/core/plan'
import { Refusal } from '../api/index.ts'
import {
  changeCodes,
  issueCodes,
  type FreshRoute,
  type House,
  type Pace,
  type PieceToIssue,
} from '../codes/index.ts'
import { tables, type CampaignRow } from '../database/index.ts'
import { insertRoute, type By } from '../routing/index.ts'

interface Order {
  readonly lines: readonly PlanLine[]
  readonly campaign: CampaignRow
  readonly domainId: number
  readonly house: House
  readonly slugLength: number
  readonly by: By
  readonly pace: Pace
}

const CHANGED_AT_ONCE = 500

/** Does what a dry run said, in the turns of a large write. @returns the numbers of the codes that are new or changed */
export async function carryOut(
  manager: EntityManager,
  { lines, campaign, domainId, house, slugLength, by, pace }: Order,
): Promise<number[]> {
  const fresh = new Map<string, FreshRoute>()
  /** Lines that want the same new route get the same object, and so one route. */
  const routeFor = (wanted: WantedRoute): number | FreshRoute => {
    if (wanted.kind === 'known') return wanted.id
    const { name, destination, shared } = wanted
    if (!shared) return { name, destination }
    const route = fresh.get(name.toLowerCase()) ?? { name, destination }
    fresh.set(name.toLowerCase(), route)
    return route
  }

  const pieces = lines.flatMap(({ action }): PieceToIssue[] =>
    action.kind === 'create'
      ? [{ ...action.piece, campaignId: campaign.id, domainId, route: routeFor(action.route) }]
      : [],
  )
  const issued = await issueCodes(manager, pieces, by, slugLength, pace)

  const changes = lines.flatMap(({ action }) => (action.kind === 'change' ? [action] : []))
  const made = new Map<FreshRoute, number>()
  for (let i = 0; i < changes.length; i += CHANGED_AT_ONCE) {
    const some = changes.slice(i, i + CHANGED_AT_ONCE)
    const sets: CodeCellChange[] = []
    for (const { id, set, route } of some) {
      const wanted = route === null ? undefined : routeFor(route)
      let leading = typeof wanted === 'number' ? wanted : wanted && made.get(wanted)
      if (wanted !== undefined && leading === undefined && typeof wanted !== 'number') {
        await pace.turns.begin()
        leading =
          (await existing(manager, campaign.id, wanted.name)) ??
          (
            await insertRoute(
              manager,
              { campaignId: campaign.id, name: wanted.name, destination: wanted.destination, note: '' },
              by,
            )
          ).id
        made.set(wanted, leading)
      }
      sets.push({ id, set: { ...set, ...(leading === undefined ? {} : { routeId: leading }) } })
    }
    const {
      refused: [refused],
    } = await changeCodes(manager, house, sets, by, pace.turns)
    if (refused) throw new Refusal('invalid', `“${refused.name}”: ${refused.sentence} Nothing was imported.`)
    pace.done?.(pieces.length + i + some.length)
  }
  return [...issued, ...changes.map(({ id }) => id)]
}

/** A route that a new piece of the same file has just made. */
async function existing(
  manager: EntityManager,
  campaignId: number,
  name: string,
): Promise<number | undefined> {
  return (await manager.findOneBy(tables.routes, { campaignId, name }))?.id
}
