import { z } from 'zod'
import { endpoint, idParams, idQuery, pageOf, pageQuery, versioned, versionedChange } from '../api/index.ts'
import { hasAtMostOne, ONE_AT_MOST, scopeIds, thingsIn } from '../scans/index.ts'
import { calendarDay } from '../time/index.ts'
import { goalFields, goalSettings } from './goal.ts'
import { siteSettings } from './site.ts'

/** A goal with what came of it. */
export const goal = z.object({
  id: z.int(),
  campaignId: z.int(),
  ...goalFields,
  version: z.int(),
  /** How often it was reached by people, and what that is worth in the workspace's currency. */
  reached: z.int(),
  worth: z.number(),
  /** When it was reached last, in a test too; null for never. */
  lastAt: z.int().nullable(),
})
export type GoalRow = z.infer<typeof goal>

/** Something that was reached, row by row. */
export const goalEvent = z.object({
  id: z.int(),
  at: z.int(),
  goalId: z.int(),
  goalName: z.string(),
  codeId: z.int(),
  codeName: z.string(),
  scanId: z.int(),
  value: z.number(),
  order: z.string(),
  country: z.string(),
  city: z.string(),
  device: z.string(),
  /** Why it is kept apart; null where it is a person's. */
  apart: z.string().nullable(),
})
export type GoalEvent = z.infer<typeof goalEvent>

/** A page of the site, by its host and path. */
export const sitePage = z.object({
  page: z.string(),
  views: z.int(),
  scans: z.int(),
  /** Half of the views took longer, in seconds. */
  medianSeconds: z.number(),
})
export type SitePage = z.infer<typeof sitePage>

/** How the workspace's sites report. */
export const goalSite = versioned(siteSettings).extend({
  /** Addresses on the front door: of the script, of the picture, and of calls by a server. */
  script: z.string(),
  image: z.string(),
  call: z.string(),
  /** When a site last reported anything; null for never. */
  lastAt: z.int().nullable(),
})
export type GoalSite = z.infer<typeof goalSite>

const days = { from: calendarDay, to: calendarDay }
const scopeQuery = { clientId: idQuery.optional(), ...scopeIds }
const newGoal = z.strictObject({ campaignId: z.int(), value: goalSettings })

export const goalsApi = {
  list: endpoint({
    method: 'GET',
    path: '/goals',
    room: 'goals',
    access: { right: 'view', things: { campaign: 'query.campaignId' } },
    summary: 'The goals of a campaign, with how often each was reached',
    query: z.strictObject({ campaignId: idQuery }),
    answer: z.object({ rows: z.array(goal), currency: z.string() }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/goals',
    room: 'goals',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Add a goal to a campaign',
    body: newGoal,
    answer: goal,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/goals/:id',
    room: 'goals',
    access: { right: 'edit', things: { goal: 'params.id' } },
    summary: 'Change a goal; what was counted stays counted',
    params: idParams,
    body: versionedChange(goalSettings),
    answer: goal,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/goals/:id',
    room: 'goals',
    access: { right: 'edit', things: { goal: 'params.id' } },
    summary: 'Delete a goal that was never reached',
    params: idParams,
  }),
  events: endpoint({
    method: 'GET',
    path: '/goal-events',
    room: 'goals',
    access: { right: 'view', things: { ...thingsIn('query'), goal: 'query.goalId' }, orAll: true },
    summary: 'What was reached, row by row',
    query: pageQuery(['at'], 'at')
      .extend({ ...scopeQuery, ...days, goalId: idQuery.optional() })
      .refine(hasAtMostOne, ONE_AT_MOST),
    answer: pageOf(goalEvent),
  }),
  pages: endpoint({
    method: 'GET',
    path: '/site-pages',
    room: 'goals',
    access: { right: 'view', things: thingsIn('query'), orAll: true },
    summary: 'The pages of the site that visitors looked at after a scan, the most viewed first',
    query: z.strictObject({ ...scopeQuery, ...days }).refine(hasAtMostOne, ONE_AT_MOST),
    answer: z.object({ rows: z.array(sitePage), rowsTotal: z.int() }),
  }),
  site: endpoint({
    method: 'GET',
    path: '/goal-site',
    room: 'goals',
    access: { right: 'view' },
    summary: 'How sites report goals: addresses, and what is decided about them',
    answer: goalSite,
  }),
  changeSite: endpoint({
    method: 'PATCH',
    path: '/goal-site',
    room: 'goals',
    access: { right: 'administer' },
    summary: 'Decide how sites report; a higher secretNumber replaces the secret',
    body: versionedChange(siteSettings),
    answer: goalSite,
  }),
  secret: endpoint({
    method: 'GET',
    path: '/goal-site/secret',
    room: 'goals',
    access: { right: 'administer' },
    summary: 'The secret that servers of the site sign their calls with',
    answer: z.object({ secret: z.string() }),
  }),
}
