import { z } from 'zod'
import { endpoint, idParams, idQuery, requiredLine } from '../api/index.ts'
import { APART, hasAtMostOne, ONE_AT_MOST, scopeIds, tally, thingsIn } from '../scans/index.ts'
import { calendarDay } from '../time/index.ts'
import { answers, asked, DAYS_IN_ORDER, ofFields } from './question.ts'
import { questionView } from './view.ts'

/** What is marked on time: a route that leads elsewhere, lanes that were published, a release for print, or a note. */
export const MARK_KINDS = ['destination', 'lanes', 'release', 'note'] as const

/** A moment that may explain figures. */
export const timeMark = z.object({
  kind: z.enum(MARK_KINDS),
  at: z.int(),
  /** The number of the revision, the release or the note. */
  id: z.int(),
  by: z.string(),
  /** The route or the piece it is of; what was noted. */
  name: z.string(),
  /** Where the route leads now, or which release it is; empty for the others. */
  detail: z.string(),
})
export type TimeMark = z.infer<typeof timeMark>

export const resultsSummary = z.object({
  zone: z.string(),
  /** Everything ever counted in the scope, whatever the period. */
  ever: tally,
  /** Requests in the period that are in no other figure, by why. */
  apart: z.array(z.object({ kind: z.enum(APART), requests: z.int() })),
  /** The latest of the period, in the order of time. */
  marks: z.array(timeMark),
  /** Scans before this moment are folded: they count, and have no rows. Null where all have. */
  rowsSince: z.int().nullable(),
})
export type ResultsSummary = z.infer<typeof resultsSummary>

/** Whose figures, and of which days, in a query. */
export const resultsQueryFields = {
  clientId: idQuery.optional(),
  ...scopeIds,
  from: calendarDay,
  to: calendarDay,
}
export const resultsQuery = z
  .strictObject(resultsQueryFields)
  .refine(hasAtMostOne, ONE_AT_MOST)
  .refine(({ from, to }) => from <= to, DAYS_IN_ORDER)

/** What is asked, and of whom: of the campaign one was in, and in it perhaps of a route or a piece. */
export const savedValue = z.strictObject({ ...ofFields, view: questionView })
export type SavedValue = z.infer<typeof savedValue>

export const savedQuestion = z.object({ id: z.int(), name: z.string(), value: savedValue, by: z.string() })
export type SavedQuestion = z.infer<typeof savedQuestion>

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
    access: {
      right: 'view',
      things: { ...thingsIn('body'), campaign: ['body.campaignId', 'body.otherCampaignId'] },
      orAll: true,
    },
    summary: 'Answers to questions about scans, leads and cost: by what, of whom, when, and against what',
    body: asked,
    answer: answers,
  }),
  saved: endpoint({
    method: 'GET',
    path: '/questions',
    room: 'results',
    access: { right: 'view' },
    summary: 'Questions that were saved',
    answer: z.object({ rows: z.array(savedQuestion) }),
  }),
  save: endpoint({
    method: 'POST',
    path: '/questions',
    room: 'results',
    access: {
      right: 'edit',
      things: {
        client: 'body.value.clientId',
        campaign: 'body.value.campaignId',
        route: 'body.value.routeId',
        code: 'body.value.codeId',
      },
      orAll: true,
    },
    summary: 'Save a question under a name; one of that name is replaced',
    body: z.strictObject({ name: requiredLine('the question a name', 80), value: savedValue }),
    answer: savedQuestion,
  }),
  forget: endpoint({
    method: 'DELETE',
    path: '/questions/:id',
    room: 'results',
    access: { right: 'edit', things: { question: 'params.id' } },
    summary: 'Delete a saved question',
    params: idParams,
  }),
  note: endpoint({
    method: 'POST',
    path: '/day-notes',
    room: 'results',
    access: { right: 'edit', things: { campaign: 'body.campaignId' }, orAll: true },
    status: 201,
    summary: 'Note on a day what may explain its figures, such as the weather or an event',
    body: z.strictObject({
      campaignId: z.int().positive().nullable(),
      day: calendarDay,
      text: requiredLine('the note a text', 200),
    }),
    answer: z.object({ id: z.int() }),
  }),
  removeNote: endpoint({
    method: 'DELETE',
    path: '/day-notes/:id',
    room: 'results',
    access: { right: 'edit', things: { dayNote: 'params.id' } },
    summary: 'Delete a note',
    params: idParams,
  }),
}
