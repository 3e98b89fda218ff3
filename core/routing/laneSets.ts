import { z } from 'zod'
import { endpoint, idParams, requiredLine } from '../api/index.ts'
import { lane, LANES_MAX } from './rules.ts'

/** The lanes of a set; none may lead on to a route, which could lead back to one that uses the set. */
const lanes = z
  .array(lane)
  .max(LANES_MAX, `A set has at most ${String(LANES_MAX)} lanes.`)
  .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two lanes have the same key.')
  .refine(
    (all) => all.every(({ outcome }) => outcome.kind !== 'route'),
    'A shared lane cannot lead on to another route. Give it an address or a message.',
  )
const name = requiredLine('a name', 100)

/** Lanes kept under a name and used by many routes; a change of them is a change of all. */
export const laneSet = z.object({
  id: z.int(),
  name: z.string(),
  lanes: z.array(lane),
  version: z.int(),
  changedAt: z.int(),
  /** The routes that use it now, those not live among them; a draft does not use it yet. */
  routes: z.array(z.object({ id: z.int(), name: z.string(), campaignId: z.int(), campaignName: z.string() })),
})
export type LaneSet = z.infer<typeof laneSet>

export const laneSetsApi = {
  list: endpoint({
    method: 'GET',
    path: '/lane-sets',
    room: 'routing',
    access: { right: 'view' },
    summary: 'Sets of lanes that routes share, by name',
    answer: z.object({ rows: z.array(laneSet) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/lane-sets',
    room: 'routing',
    access: { right: 'edit' },
    status: 201,
    summary: 'Keep lanes under a name',
    body: z.strictObject({ name, lanes }),
    answer: laneSet,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/lane-sets/:id',
    room: 'routing',
    access: { right: 'edit', things: { laneSet: 'params.id' } },
    summary: 'Change a set; live at once for every route that uses it',
    params: idParams,
    body: z.strictObject({ version: z.int(), name: name.optional(), lanes: lanes.optional() }),
    answer: laneSet,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/lane-sets/:id',
    room: 'routing',
    access: { right: 'edit', things: { laneSet: 'params.id' } },
    summary: 'Delete a set that no route uses',
    params: idParams,
  }),
}
