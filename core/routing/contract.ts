import { calendarDay } from '../time/index.ts'
import { z } from 'zod'
import {
  ADDRESS_MAX,
  endpoint,
  idParams,
  idQuery,
  line,
  pageOf,
  pageQuery,
  requiredLine,
} from '../api/index.ts'
import { tally } from '../scans/index.ts'
import { destination } from './destinationField.ts'
import { expectation } from './expectations.ts'
import { revision } from './revision.ts'
import { lane, rules } from './rules.ts'
import { STATES } from './state.ts'

export const state = z.enum(STATES)

export const route = z.object({
  id: z.int(),
  campaignId: z.int(),
  name: z.string(),
  destination: z.string().max(ADDRESS_MAX),
  state,
  note: z.string(),
  version: z.int(),
  createdAt: z.int(),
  changedAt: z.int(),
  codes: z.int(),
  scans: tally,
  lanes: z.int(),
  hasDraft: z.boolean(),
})
export type Route = z.infer<typeof route>

/** A route as far as it can be chosen. */
const routeName = route.pick({ id: true, name: true, destination: true, state: true })
export type RouteName = z.infer<typeof routeName>

/** What is being prepared and is not live yet. */
const draft = z.object({ destination: z.string(), rules, by: z.string(), at: z.int() })

const taken = z.object({ total: z.int(), today: z.int() })

/** A lane of a shared set under the key it has in a route. */
const sharedLane = lane.extend({ id: z.string() })

/** One route with everything it does. */
export const wholeRoute = route.extend({
  rules,
  /** The lanes of its shared set, as the route asks them. */
  sharedLanes: z.array(sharedLane),
  /** Whether a password stands before it. */
  locked: z.boolean(),
  draft: draft.nullable(),
  /** Goes up with each change of the draft. */
  draftVersion: z.int(),
  expectations: z.array(expectation),
  /** Real scans let through: since the limit counts, and today; null where nothing limits them. */
  taken: taken.nullable(),
  /** When the limit will be reached at the present pace (UTC ms), with a 95 % interval; null where it cannot be told. */
  forecast: z.object({ expected: z.int(), earliest: z.int(), latest: z.int().nullable() }).nullable(),
})
export type WholeRoute = z.infer<typeof wholeRoute>

export const draftChange = z.strictObject({ draftVersion: z.int(), destination, rules })

/** Scans of one exit of a route: a lane's id or one of `EXITS`, and the variant of a split. */
const exitTally = z.object({ exit: z.string(), variant: z.string(), scans: z.int(), uniques: z.int() })
export type ExitTally = z.infer<typeof exitTally>

/** Real scans that would go elsewhere: from where to where, how many, and from which places most. */
const moved = z.object({ was: z.string(), is: z.string(), scans: z.int(), places: z.array(z.string()) })
const broken = z.object({ name: z.string(), expected: z.string(), would: z.string() })
export const effect = z.object({
  /** How many of the latest real scans were decided again. */
  scans: z.int(),
  elsewhere: z.int(),
  moved: z.array(moved),
  broken: z.array(broken),
  changes: z.array(z.string()),
})
export type Effect = z.infer<typeof effect>

const boundRow = z.object({
  routeId: z.int(),
  routeName: z.string(),
  campaignId: z.int(),
  campaignName: z.string(),
  zone: z.string(),
  codes: z.int(),
  limit: z.int().nullable(),
  kind: z.enum(['full', 'full-today', 'over', 'ends-soon', 'full-soon']),
  urgent: z.boolean(),
  at: z.int().nullable(),
  between: z.array(z.int().nullable()).nullable(),
})
export type BoundRow = z.infer<typeof boundRow>

const note = line('the note', 1000)

export const newRoute = z.strictObject({
  campaignId: z.int(),
  name: requiredLine('a name', 200),
  destination,
  note: note.default(''),
})

export const routeChange = z.strictObject({
  version: z.int(),
  name: requiredLine('a name', 200).optional(),
  destination: destination.optional(),
  state: state.optional(),
  note: note.optional(),
})
export type RouteChange = z.input<typeof routeChange>

export const ROUTE_SORTS = ['name', 'changedAt', 'codes', 'scans', 'lastScan'] as const

export const routesApi = {
  list: endpoint({
    method: 'GET',
    path: '/routes',
    room: 'routing',
    access: { right: 'view', things: { campaign: 'query.campaignId' } },
    summary: 'The routes of a campaign',
    query: pageQuery(ROUTE_SORTS, 'name').extend({ campaignId: idQuery }),
    answer: pageOf(route),
  }),
  names: endpoint({
    method: 'GET',
    path: '/routes/names',
    room: 'routing',
    access: { right: 'view', things: { campaign: 'query.campaignId' } },
    summary:
      'What all routes of a campaign are called and where they lead, deleted ones left out, without their figures',
    query: z.strictObject({ campaignId: idQuery }),
    answer: z.object({ rows: z.array(routeName) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/routes',
    room: 'routing',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Make a route',
    body: newRoute,
    answer: wholeRoute,
  }),
  get: endpoint({
    method: 'GET',
    path: '/routes/:id',
    room: 'routing',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'One route',
    params: idParams,
    answer: wholeRoute,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/routes/:id',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Change where a route leads; live at once for all its codes',
    params: idParams,
    body: routeChange,
    answer: wholeRoute,
  }),
  saveDraft: endpoint({
    method: 'PATCH',
    path: '/routes/:id/draft',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Save the draft; no scan is decided by it',
    params: idParams,
    body: draftChange,
    answer: wholeRoute,
  }),
  dropDraft: endpoint({
    method: 'DELETE',
    path: '/routes/:id/draft',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Discard the draft',
    params: idParams,
    answer: wholeRoute,
  }),
  effect: endpoint({
    method: 'GET',
    path: '/routes/:id/effect',
    room: 'routing',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'What publishing the draft would change, by deciding the latest 10,000 real scans again',
    params: idParams,
    answer: effect,
  }),
  publish: endpoint({
    method: 'POST',
    path: '/routes/:id/publish',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Make the draft live for every code of the route, at once',
    params: idParams,
    body: z.strictObject({ version: z.int(), draftVersion: z.int() }),
    answer: wholeRoute,
  }),
  goBack: endpoint({
    method: 'POST',
    path: '/routes/:id/return',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Make an older revision live again, as a new one',
    params: idParams,
    body: z.strictObject({ version: z.int(), number: z.int() }),
    answer: wholeRoute,
  }),
  setPassword: endpoint({
    method: 'PATCH',
    path: '/routes/:id/password',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Put a password before a route, or take it away with an empty one; live at once',
    params: idParams,
    body: z.strictObject({
      version: z.int(),
      password: z.string().max(200, 'Make the password no longer than 200 characters.'),
    }),
    answer: wholeRoute,
  }),
  setExpectations: endpoint({
    method: 'PATCH',
    path: '/routes/:id/expectations',
    room: 'routing',
    access: { right: 'edit', things: { route: 'params.id' } },
    summary: 'Keep rehearsals that publishing runs again',
    params: idParams,
    body: z.strictObject({ expectations: z.array(expectation).max(100, 'Keep at most 100 expectations.') }),
    answer: wholeRoute,
  }),
  exits: endpoint({
    method: 'GET',
    path: '/routes/:id/exits',
    room: 'routing',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'How many real scans took each lane and variant',
    params: idParams,
    query: z.strictObject({ from: calendarDay.optional(), to: calendarDay.optional() }),
    answer: z.object({ rows: z.array(exitTally) }),
  }),
  attention: endpoint({
    method: 'GET',
    path: '/bounds',
    room: 'routing',
    access: { right: 'view' },
    summary: 'Routes whose dates or limits are reached, or soon will be',
    answer: z.object({ rows: z.array(boundRow) }),
  }),
  revisions: endpoint({
    method: 'GET',
    path: '/routes/:id/revisions',
    room: 'routing',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'Every change of a route, the newest first',
    params: idParams,
    query: pageQuery(['at'], 'at'),
    answer: pageOf(revision),
  }),
}
