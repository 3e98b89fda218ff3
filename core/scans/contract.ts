import { calendarDay } from '../time/index.ts'
import { filters, filtersQuery } from '../dimensions/index.ts'
import { z } from 'zod'
import { endpoint, idQuery, pageOf, pageQuery, versioned, versionedChange } from '../api/index.ts'
import { job } from '../jobs/index.ts'
import { APART } from './apart.ts'
import { monthsQuery, retention } from './retention.ts'
import { DEVICE_TYPES } from './deviceTypes.ts'

/** What a scan was answered with: the way on, or a page and why. */
export const OUTCOMES = [
  'redirect',
  'paused',
  'deleted',
  'early',
  'over',
  'full',
  'full-today',
  'message',
  'page',
  'password',
  'location',
] as const
export type Outcome = (typeof OUTCOMES)[number]

/** One scan as it is kept: no network address, no user agent, no visitor. */
export const scan = z.object({
  id: z.int(),
  at: z.int(),
  codeId: z.int(),
  codeName: z.string(),
  routeId: z.int(),
  revision: z.int(),
  outcome: z.enum(OUTCOMES),
  /** The lane it took, by its key, or `otherwise`; empty where it got to none. */
  exit: z.string(),
  variant: z.string(),
  apart: z.enum(APART).nullable(),
  unique: z.boolean(),
  country: z.string(),
  region: z.string(),
  city: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  device: z.enum(DEVICE_TYPES),
  system: z.string(),
  systemVersion: z.string(),
  browser: z.string(),
  language: z.string(),
  referrer: z.string(),
})
export type Scan = z.infer<typeof scan>

/** A campaign, a route or a code, in a query. */
export const scopeIds = {
  campaignId: idQuery.optional(),
  routeId: idQuery.optional(),
  codeId: idQuery.optional(),
}

/** A campaign, a route or a code. */
export interface Scope {
  campaignId?: number | undefined
  routeId?: number | undefined
  codeId?: number | undefined
}
/** One of these or a client; all there is in the workspace where none is named. */
export type Of = { readonly clientId?: number | undefined } & Readonly<Scope>

const named = ({ clientId, campaignId, routeId, codeId }: Of) =>
  [clientId, campaignId, routeId, codeId].filter((id) => id !== undefined).length
export const hasAtMostOne = (of: Of) => named(of) <= 1
export const ONE_AT_MOST = {
  message: 'Name one client, one campaign, one route or one code, or none for all.',
  path: ['campaignId'],
}
export const hasOneScope = (scope: Scope) => named(scope) === 1
export const ONE_SCOPE = { message: 'Name one campaign, one route or one code.', path: ['campaignId'] }

/** What a file of scans may be written as. */
export const ROW_FORMATS = ['csv', 'arrow', 'parquet'] as const
export type RowFormat = (typeof ROW_FORMATS)[number]
export const ROW_FORMAT_NAMES: Readonly<Record<RowFormat, string>> = {
  csv: 'CSV',
  arrow: 'Arrow',
  parquet: 'Parquet',
}

/** Seconds that are seen one by one. */
export const LAST_HOUR_SECONDS = 3600

/** Days from `from` to `to`, both included, in the campaign's zone; open ends where they are left out. */
export const scanFilter = z.strictObject({
  clientId: idQuery.optional(),
  ...scopeIds,
  /** As JSON: the same filters that a figure has, which must name both its days. */
  filters: filtersQuery.optional(),
  from: calendarDay.optional(),
  to: calendarDay.optional(),
  /** Counted scans, those kept apart, or both. */
  counted: z.enum(['counted', 'apart', 'both']).default('counted'),
  /** Only those that left a route this way: the rows behind the figure of a lane. The route must be named too. */
  exit: z.string().max(20).optional(),
})

/**
 * What the live stream tells: by how much scans have moved the figures of each code, how many of them counted, how
 * many of those were unique and how many were kept apart; or a change of what a code does.
 */
export const liveEvent = z.discriminatedUnion('type', [
  /** A job was begun, ended, or waits. */
  z.object({ type: z.literal('job'), id: z.int() }),
  z.object({
    type: z.literal('scans'),
    scans: z.array(
      z.object({
        codeId: z.int(),
        routeId: z.int(),
        campaignId: z.int(),
        at: z.int(),
        count: z.int(),
        uniques: z.int(),
        apart: z.int(),
      }),
    ),
  }),
  /** Somebody answered a form of a campaign, or what is known of those who did was changed. */
  z.object({ type: z.literal('leads'), campaignId: z.int() }),
  /** A mail was sent, refused or put off. */
  z.object({ type: z.literal('mails') }),
  z.object({ type: z.literal('change'), of: z.enum(['campaign', 'route', 'code', 'page']), id: z.int() }),
])
export type LiveEvent = z.infer<typeof liveEvent>

const knownPlace = z.object({
  country: z.string(),
  region: z.string(),
  city: z.string(),
  latitude: z.number(),
  longitude: z.number(),
})
export type KnownPlace = z.infer<typeof knownPlace>

/** Where the things of a scope stand in what is sent. */
export const thingsIn = <P extends 'query' | 'body'>(place: P) =>
  ({
    client: `${place}.clientId`,
    campaign: `${place}.campaignId`,
    route: `${place}.routeId`,
    code: `${place}.codeId`,
  }) as const

/** Scans before a moment (UTC ms), and how many they are. */
const scansUpTo = z.object({ before: z.int(), scans: z.int() })

export const scansApi = {
  places: endpoint({
    method: 'GET',
    path: '/places',
    room: 'scans',
    access: { right: 'view' },
    summary:
      'Real cities that scans can come from, or regions, by the beginning of their name; the largest first',
    query: z.strictObject({
      q: z.string().min(1).max(100),
      kind: z.enum(['city', 'region']).default('city'),
    }),
    answer: z.object({ rows: z.array(knownPlace) }),
  }),
  list: endpoint({
    method: 'GET',
    path: '/scans',
    room: 'scans',
    access: {
      right: 'view',
      things: thingsIn('query'),
      orAll: true,
    },
    summary: 'The scans behind a figure, row by row',
    query: pageQuery(['at'], 'at').extend(scanFilter.shape).refine(hasAtMostOne, ONE_AT_MOST),
    answer: pageOf(scan),
  }),
  csv: endpoint({
    method: 'GET',
    path: '/scans.csv',
    room: 'scans',
    access: {
      right: 'view',
      things: thingsIn('query'),
      orAll: true,
    },
    summary: 'The same scans as a CSV file (RFC 4180)',
    query: scanFilter.refine(hasAtMostOne, ONE_AT_MOST),
    answers: 'text/csv',
  }),
  makeFile: endpoint({
    method: 'POST',
    path: '/scan-files',
    room: 'scans',
    access: {
      right: 'view',
      things: thingsIn('body'),
      orAll: true,
    },
    status: 202,
    summary:
      'Have that file made by a job, as CSV, Apache Arrow or Apache Parquet, to be fetched when it is ready',
    body: scanFilter
      .extend({ filters: filters.optional(), format: z.enum(ROW_FORMATS).default('csv') })
      .refine(hasAtMostOne, ONE_AT_MOST),
    answer: job,
  }),
  pulse: endpoint({
    method: 'GET',
    path: '/pulse',
    room: 'scans',
    access: { right: 'view' },
    summary: 'Counted scans a minute over the last hour, the current minute last',
    answer: z.object({ minutes: z.array(z.int()).length(60), total: z.int() }),
  }),
  lastHour: endpoint({
    method: 'GET',
    path: '/last-hour',
    room: 'scans',
    access: { right: 'view', things: thingsIn('query'), orAll: true },
    summary: 'Counted scans of the last hour, second by second',
    query: z.strictObject({ clientId: idQuery.optional(), ...scopeIds }).refine(hasAtMostOne, ONE_AT_MOST),
    answer: z.object({
      /** The end of the last second, in UTC ms. */
      until: z.int(),
      /** How many seconds before that end each of them was, the oldest first, and how many scans it had; others had none. */
      seconds: z.array(z.tuple([z.int(), z.int()])),
      total: z.int(),
    }),
  }),
  retention: endpoint({
    method: 'GET',
    path: '/settings/retention',
    room: 'scans',
    access: { right: 'view' },
    summary: 'How long the workspace keeps single scans',
    answer: versioned(retention),
  }),
  changeRetention: endpoint({
    method: 'PATCH',
    path: '/settings/retention',
    room: 'scans',
    access: { right: 'administer' },
    summary: 'Decide it anew: older scans are folded into sums at once, which cannot be undone',
    body: versionedChange(retention),
    answer: versioned(retention),
  }),
  folded: endpoint({
    method: 'GET',
    path: '/folded-scans',
    room: 'scans',
    access: { right: 'view' },
    summary: 'Which scans are folded into sums, and which would be',
    query: z.strictObject({ months: monthsQuery.optional() }),
    answer: z.object({ folded: scansUpTo.nullable(), next: scansUpTo.nullable() }),
  }),
  events: endpoint({
    method: 'GET',
    path: '/events',
    room: 'scans',
    access: { right: 'view' },
    summary: 'Live events (server-sent events of the HTML Standard)',
    answers: 'text/event-stream',
  }),
}
