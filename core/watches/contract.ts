import { z } from 'zod'
import { endpoint, idParams, someIds } from '../api/index.ts'
import { hasOneScope, scopeIds } from '../scans/index.ts'
import { WATCH_EVERY, WATCH_OF, WATCH_WHAT } from './watch.ts'

/** So many scans or days; nobody waits for more. */
const N_MAX = 1_000_000_000
const DAYS_MAX = 366

/** What somebody is told of. */
export const watch = z.object({
  id: z.int(),
  of: z.enum(WATCH_OF),
  refId: z.int(),
  /** What it is of, by name. */
  name: z.string(),
  campaignId: z.int(),
  what: z.enum(WATCH_WHAT),
  every: z.enum(WATCH_EVERY),
  n: z.int().nullable(),
  /** When it told something last, in UTC ms; null where it has not. */
  toldAt: z.int().nullable(),
})
export type Watch = z.infer<typeof watch>

export const newWatch = z
  .strictObject({
    campaignId: z.int().positive().optional(),
    routeId: z.int().positive().optional(),
    codeId: z.int().positive().optional(),
    what: z.enum(WATCH_WHAT),
    every: z.enum(WATCH_EVERY),
    n: z
      .int('Give a whole number.')
      .min(1, 'Give a number from 1 on.')
      .max(N_MAX, 'Give a smaller number.')
      .nullable(),
  })
  .refine(hasOneScope, 'Say which campaign, route or piece is watched.')
  .refine(({ what, every }) => (what === 'summary') === (every !== 'once'), {
    message: 'Only summaries come every so often.',
    path: ['every'],
  })
  .refine(({ what, n }) => (what === 'count' || what === 'silent') === (n !== null), {
    message: 'Give the number of scans, or of days.',
    path: ['n'],
  })
  .refine(({ what, campaignId }) => what !== 'unusual' || campaignId !== undefined, {
    message: 'What is unusual is found for whole campaigns and their pieces. Watch the campaign.',
    path: ['what'],
  })
  .refine(({ what, n }) => what !== 'silent' || (n ?? 0) <= DAYS_MAX, {
    message: `Give at most ${String(DAYS_MAX)} days.`,
    path: ['n'],
  })
export type NewWatch = z.infer<typeof newWatch>

/** Something that happened which somebody watches for. */
export const notice = z.object({
  id: z.int(),
  at: z.int(),
  sentence: z.string(),
  campaignId: z.int(),
  of: z.enum(WATCH_OF),
  refId: z.int(),
})
export type Notice = z.infer<typeof notice>

export const watchesApi = {
  list: endpoint({
    method: 'GET',
    path: '/watches',
    room: 'watches',
    access: {
      right: 'view',
      things: { campaign: 'query.campaignId', route: 'query.routeId', code: 'query.codeId' },
      orAll: true,
    },
    summary: 'What whoever asks is told of: all of it, or of one campaign, route or piece',
    query: z.strictObject(scopeIds),
    answer: z.object({ rows: z.array(watch) }),
  }),
  add: endpoint({
    method: 'POST',
    path: '/watches',
    room: 'watches',
    access: {
      right: 'view',
      things: { campaign: 'body.campaignId', route: 'body.routeId', code: 'body.codeId' },
      orAll: true,
    },
    status: 201,
    summary: 'Be told of leads, or of scans: now and then, or when something happens',
    body: newWatch,
    answer: watch,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/watches/:id',
    room: 'watches',
    access: { right: 'view', things: { watch: 'params.id' } },
    summary: 'Be told no more',
    params: idParams,
  }),
  notices: endpoint({
    method: 'GET',
    path: '/notices',
    room: 'watches',
    access: { right: 'view' },
    summary: 'What happened that whoever asks watches for and has not seen yet, the newest first',
    answer: z.object({ rows: z.array(notice) }),
  }),
  seen: endpoint({
    method: 'POST',
    path: '/notices/seen',
    room: 'watches',
    access: { right: 'view' },
    summary: 'Take notices off the desk',
    body: z.strictObject({ ids: someIds(200) }),
  }),
}
