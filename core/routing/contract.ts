import { z } from 'zod'
import { endpoint, idParams, idQuery, line, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { tally } from '../scans/index.ts'
import { STATES } from './decide.ts'
import { DESTINATION_MAX, readDestination } from './destination.ts'
import { revision } from './revision.ts'

export const state = z.enum(STATES)

/** A destination as it is typed; the server also refuses its own front door. */
export const destination = z.string({ error: 'Give the address this leads to.' }).superRefine((typed, context) => {
  const reading = readDestination(typed)
  if (!reading.ok) context.addIssue({ code: 'custom', message: reading.sentence })
}).transform((typed) => typed.trim())

export const route = z.object({
  id: z.int(),
  campaignId: z.int(),
  name: z.string(),
  destination: z.string().max(DESTINATION_MAX),
  state,
  note: z.string(),
  version: z.int(),
  createdAt: z.int(),
  changedAt: z.int(),
  codes: z.int(),
  scans: tally,
})
export type Route = z.infer<typeof route>

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
    method: 'GET', path: '/routes', room: 'routing', summary: 'The routes of a campaign',
    query: pageQuery(ROUTE_SORTS, 'name').extend({ campaignId: idQuery }), answer: pageOf(route),
  }),
  create: endpoint({
    method: 'POST', path: '/routes', room: 'routing', status: 201, summary: 'Make a route', body: newRoute, answer: route,
  }),
  get: endpoint({ method: 'GET', path: '/routes/:id', room: 'routing', summary: 'One route', params: idParams, answer: route }),
  change: endpoint({
    method: 'PATCH', path: '/routes/:id', room: 'routing', summary: 'Change where a route leads; live at once for all its codes',
    params: idParams, body: routeChange, answer: route,
  }),
  revisions: endpoint({
    method: 'GET', path: '/routes/:id/revisions', room: 'routing', summary: 'Every change of a route, the newest first',
    params: idParams, query: pageQuery(['at'], 'at'), answer: pageOf(revision),
  }),
}
