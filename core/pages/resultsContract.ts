import { z } from 'zod'
import { endpoint, idParams, idQuery, pageOf, pageQuery } from '../api/index.ts'
import { job } from '../jobs/index.ts'
import { APART, DEVICE_TYPES, hasOneScope, ONE_SCOPE, scanFilter, scopeIds } from '../scans/index.ts'
import { EVENT_COUNTS, PAGE_EVENTS } from './events.ts'

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

/** Something that happened on a page, with the scan that was shown it: what the figures are counted from. */
export const pageEventRow = z.object({
  id: z.int(),
  at: z.int(),
  scanId: z.int(),
  codeId: z.int(),
  codeName: z.string(),
  routeId: z.int(),
  /** The revision of the route that showed the page. */
  revision: z.int(),
  pageId: z.int(),
  /** As it is called now; empty where it is gone. */
  pageName: z.string(),
  kind: z.enum(PAGE_EVENTS),
  part: z.string(),
  /** What the part is called on the page as it is now. */
  partName: z.string(),
  item: z.string(),
  apart: z.enum(APART).nullable(),
  country: z.string(),
  region: z.string(),
  city: z.string(),
  device: z.enum(DEVICE_TYPES),
  language: z.string(),
})
export type PageEventRow = z.infer<typeof pageEventRow>

/** Which of the things that happened on pages are meant. */
export const eventFilter = z.strictObject({
  ...scopeIds,
  pageId: idQuery.optional(),
  ...periodFields,
  counted: scanFilter.shape.counted,
  /** Only those that this figure of a piece counts. */
  count: z.enum(EVENT_COUNTS).optional(),
  /** Only what happened so, there, and to that of it: what one figure of a page counts. */
  kind: z.enum(PAGE_EVENTS).optional(),
  part: z.string().max(16).optional(),
  item: z.string().max(20).optional(),
})
export type EventFilter = z.infer<typeof eventFilter>

const hasOneOwner = (q: EventFilter) =>
  [q.campaignId, q.routeId, q.codeId, q.pageId].filter((id) => id !== undefined).length === 1
const ONE_OWNER = { message: 'Name one campaign, one route, one code or one page.', path: ['campaignId'] }

const eventThings = (from: 'query' | 'body') => ({
  campaign: `${from}.campaignId`,
  route: `${from}.routeId`,
  code: `${from}.codeId`,
  page: `${from}.pageId`,
})

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
        ...scopeIds,
        ...periodFields,
      })
      .refine(hasOneScope, ONE_SCOPE)
      .refine(isOrdered, ORDERED),
    answer: z.object({ rows: z.array(pieceOnPages) }),
  }),
  rows: endpoint({
    method: 'GET',
    path: '/page-event-rows',
    room: 'pages',
    access: { right: 'view', things: eventThings('query') },
    summary: 'What happened on pages, row by row: what their figures are counted from',
    query: pageQuery(['at'], 'at')
      .extend(eventFilter.shape)
      .refine(hasOneOwner, ONE_OWNER)
      .refine(isOrdered, ORDERED),
    answer: pageOf(pageEventRow),
  }),
  makeFile: endpoint({
    method: 'POST',
    path: '/page-event-files',
    room: 'pages',
    access: { right: 'view', things: eventThings('body') },
    status: 202,
    summary: 'Have those rows written as a CSV file (RFC 4180) by a job, to be fetched when it is ready',
    body: eventFilter.refine(hasOneOwner, ONE_OWNER).refine(isOrdered, ORDERED),
    answer: job,
  }),
}
