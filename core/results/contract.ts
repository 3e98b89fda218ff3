import { UNITS } from '../time/index.ts'
import { z } from 'zod'
import { endpoint } from '../api/index.ts'
import { APART, hasOneScope, ONE_SCOPE, scanFilter, scopeFields, tally } from '../scans/index.ts'
import { answers, asked } from './question.ts'

const bucket = z.object({ start: z.int(), end: z.int(), scans: z.int(), uniques: z.int() })

/** One row of a breakdown; an empty key is what is not known. */
const share = z.object({ key: z.string(), scans: z.int(), uniques: z.int() })
export type Share = z.infer<typeof share>

const city = share.extend({
  country: z.string(),
  region: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
})

/** A moment at which a route of the scope was made to lead elsewhere. */
export const destinationChange = z.object({
  at: z.int(),
  routeId: z.int(),
  routeName: z.string(),
  by: z.string(),
  was: z.string(),
  is: z.string(),
})
export type DestinationChange = z.infer<typeof destinationChange>

const period = z.object({
  from: z.string(),
  to: z.string(),
  tally,
  buckets: z.array(bucket),
})
export type Period = z.infer<typeof period>

export const results = z.object({
  zone: z.string(),
  unit: z.enum(UNITS),
  period,
  /** The same number of days just before, where it was asked for. */
  before: period.nullable(),
  /** Everything ever counted in the scope, whatever the period. */
  ever: tally,
  /** Requests in the period that are in no other figure, by why. */
  apart: z.array(z.object({ kind: z.enum(APART), requests: z.int() })),
  changes: z.array(destinationChange),
  /** Scans before this moment are folded: they count here, and have no rows. Null where all have. */
  rowsSince: z.int().nullable(),
  countries: z.array(share),
  cities: z.array(city),
  citiesTotal: z.int(),
  devices: z.array(share),
  systems: z.array(share),
  browsers: z.array(share),
  languages: z.array(share),
  /** By the channel each piece's visits fall in; the empty key is what analytics would call unassigned. */
  channels: z.array(share),
  codes: z.array(share.extend({ codeId: z.int(), lastAt: z.int().nullable() })),
})
export type Results = z.infer<typeof results>

export const resultsQuery = z
  .strictObject({
    ...scopeFields,
    from: scanFilter.shape.from,
    to: scanFilter.shape.to,
    unit: z.enum(UNITS).optional(),
    compare: z.enum(['yes', 'no']).default('no'),
  })
  .refine(hasOneScope, ONE_SCOPE)
  .refine((q) => !q.from || !q.to || q.from <= q.to, {
    message: 'The last day lies before the first.',
    path: ['to'],
  })

export const resultsApi = {
  get: endpoint({
    method: 'GET',
    path: '/results',
    room: 'results',
    access: {
      right: 'view',
      things: { campaign: 'query.campaignId', route: 'query.routeId', code: 'query.codeId' },
    },
    summary: 'What came of a campaign, a route or a code',
    query: resultsQuery,
    answer: results,
  }),
  ask: endpoint({
    method: 'POST',
    path: '/figures',
    room: 'results',
    access: {
      right: 'view',
      things: {
        client: 'body.clientId',
        campaign: 'body.campaignId',
        route: 'body.routeId',
        code: 'body.codeId',
      },
      orAll: true,
    },
    summary: 'Answers to questions about scans, leads and cost: by what, of whom, when, and against what',
    body: asked,
    answer: answers,
  }),
}
