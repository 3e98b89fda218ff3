import { z } from 'zod'
import { endpoint, idParams } from '../api/index.ts'
import { hasOneScope, ONE_SCOPE, scanFilter, scopeFields } from '../scans/index.ts'
import { PAGE_EVENTS } from './events.ts'

const periodFields = { from: scanFilter.shape.from, to: scanFilter.shape.to }
const isOrdered = (q: { from?: string | undefined; to?: string | undefined }) =>
  !q.from || !q.to || q.from <= q.to
const ORDERED = { message: 'The last day lies before the first.', path: ['to'] }

/** How many scans that were shown a page did something on it: each counts once, however often they did. */
export const pageTally = z.object({
  kind: z.enum(PAGE_EVENTS),
  /** Where on the page; empty for the page as a whole. */
  part: z.string(),
  /** Which of its links, how many per cent were played, or how many seconds the page was seen. */
  item: z.string(),
  scans: z.int(),
})
export type PageTally = z.infer<typeof pageTally>

/** What scans of one piece did on the pages they were shown. */
export const pieceOnPages = z.object({
  codeId: z.int(),
  name: z.string(),
  opened: z.int(),
  /** Followed a link at least once of each part. */
  followed: z.int(),
  /** Took a file, a contact or an event. */
  taken: z.int(),
  /** Began to play something, and played something to its end. */
  played: z.int(),
  finished: z.int(),
})
export type PieceOnPages = z.infer<typeof pieceOnPages>

export const pageResultsApi = {
  page: endpoint({
    method: 'GET',
    path: '/pages/:id/results',
    room: 'pages',
    access: { right: 'view', things: { page: 'params.id' } },
    summary: 'What scans that were shown a page did on it, in days of the campaign’s zone',
    params: idParams,
    query: z.strictObject(periodFields).refine(isOrdered, ORDERED),
    answer: z.object({
      zone: z.string(),
      from: z.string(),
      to: z.string(),
      tallies: z.array(pageTally),
    }),
  }),
  pieces: endpoint({
    method: 'GET',
    path: '/page-events',
    room: 'pages',
    access: {
      right: 'view',
      things: { campaign: 'query.campaignId', route: 'query.routeId', code: 'query.codeId' },
    },
    summary: 'What scans of a campaign, a route or a code did on pages, by piece',
    query: z
      .strictObject({
        campaignId: scopeFields.campaignId,
        routeId: scopeFields.routeId,
        codeId: scopeFields.codeId,
        ...periodFields,
      })
      .refine(hasOneScope, ONE_SCOPE)
      .refine(isOrdered, ORDERED),
    answer: z.object({ rows: z.array(pieceOnPages) }),
  }),
}
