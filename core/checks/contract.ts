import { z } from 'zod'
import { endpoint, idParams } from '../api/index.ts'
import { job } from '../jobs/index.ts'

/** What a check of a destination came to. Everything but `fine` and `tags-lost` means that nobody gets there. */
export const VERDICTS = [
  'fine',
  'tags-lost',
  'not-found',
  'refused',
  'broken',
  'loop',
  'too-many-hops',
  'too-slow',
  'unreachable',
  'insecure',
  'forbidden-address',
  'odd-redirect',
] as const
export type Verdict = (typeof VERDICTS)[number]

/** One request on the way: what was asked, what came back, and how long that took in milliseconds. */
export const hop = z.object({
  address: z.string(),
  status: z.int().nullable(),
  ms: z.int().min(0),
  /** Where it sends on to, as an absolute address. */
  to: z.string().nullable(),
})
export type Hop = z.infer<typeof hop>

export const check = z.object({
  id: z.int(),
  routeId: z.int(),
  /** The piece whose tags were on the address; null where the route has none. */
  codeId: z.int().nullable(),
  address: z.string(),
  at: z.int(),
  ms: z.int(),
  verdict: z.enum(VERDICTS),
  status: z.int().nullable(),
  hops: z.array(hop),
  /** Names of the tags that were no longer in the final address. */
  lost: z.array(z.string()),
  /** Since when every check of this route has failed; null while it does not. */
  failingSince: z.int().nullable(),
  sentence: z.string(),
})
export type Check = z.infer<typeof check>

export const checksApi = {
  code: endpoint({
    method: 'POST',
    path: '/codes/:id/checks',
    room: 'checks',
    access: { right: 'edit', things: { code: 'params.id' } },
    summary: 'Follow where a piece leads, now, with its own tags',
    params: idParams,
    answer: check,
  }),
  route: endpoint({
    method: 'POST',
    path: '/routes/:id/checks',
    room: 'checks',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Follow where a route leads, now',
    params: idParams,
    answer: check,
  }),
  latest: endpoint({
    method: 'GET',
    path: '/routes/:id/checks',
    room: 'checks',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'The newest checks of a route',
    params: idParams,
    answer: z.object({ rows: z.array(check) }),
  }),
  begin: endpoint({
    method: 'POST',
    path: '/check-runs',
    room: 'checks',
    access: { right: 'edit', things: { campaign: 'body.campaignId' }, orAll: true },
    status: 202,
    summary:
      'Check every live route of a campaign, or of the workspace; one check that is under way goes on instead',
    body: z.strictObject({ campaignId: z.int().optional() }),
    answer: job,
  }),
  failing: endpoint({
    method: 'GET',
    path: '/failing',
    room: 'checks',
    access: { right: 'view' },
    summary: 'Routes whose destination fails or loses its tags, the longest failing first',
    answer: z.object({
      rows: z.array(
        check.extend({
          campaignId: z.int(),
          campaignName: z.string(),
          routeName: z.string(),
          zone: z.string(),
          codes: z.int(),
        }),
      ),
    }),
  }),
}
