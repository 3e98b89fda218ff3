import { z } from 'zod'
import { endpoint, idQuery } from '../api/index.ts'
import { APART, hasAtMostOne, ONE_AT_MOST, scopeIds, tally, thingsIn } from '../scans/index.ts'
import { calendarDay } from '../time/index.ts'
import { answers, asked, DAYS_IN_ORDER } from './question.ts'

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

export const resultsSummary = z.object({
  zone: z.string(),
  /** Everything ever counted in the scope, whatever the period. */
  ever: tally,
  /** Requests in the period that are in no other figure, by why. */
  apart: z.array(z.object({ kind: z.enum(APART), requests: z.int() })),
  /** The latest of the period. */
  changes: z.array(destinationChange),
  /** Scans before this moment are folded: they count, and have no rows. Null where all have. */
  rowsSince: z.int().nullable(),
})
export type ResultsSummary = z.infer<typeof resultsSummary>

export const resultsQuery = z
  .strictObject({
    clientId: idQuery.optional(),
    ...scopeIds,
    from: calendarDay,
    to: calendarDay,
  })
  .refine(hasAtMostOne, ONE_AT_MOST)
  .refine(({ from, to }) => from <= to, DAYS_IN_ORDER)

export const resultsApi = {
  get: endpoint({
    method: 'GET',
    path: '/results',
    room: 'results',
    access: { right: 'view', things: thingsIn('query'), orAll: true },
    summary:
      'What there is to say beside the figures: all there ever was, what is kept apart, what was changed',
    query: resultsQuery,
    answer: resultsSummary,
  }),
  ask: endpoint({
    method: 'POST',
    path: '/figures',
    room: 'results',
    access: { right: 'view', things: thingsIn('body'), orAll: true },
    summary: 'Answers to questions about scans, leads and cost: by what, of whom, when, and against what',
    body: asked,
    answer: answers,
  }),
}
