import { z } from 'zod'
import { endpoint, idParams, idQuery, requiredLine } from '../api/index.ts'
import { pageContent } from './page.ts'

/** A small mobile page that Flimbo itself serves where a lane or a bound of a route leads to it. */
export const page = z.object({
  id: z.int(),
  campaignId: z.int(),
  name: z.string(),
  version: z.int(),
  createdAt: z.int(),
  changedAt: z.int(),
  ...pageContent.shape,
  /** The routes that lead to it now; a draft does not yet. */
  routes: z.array(z.object({ id: z.int(), name: z.string() })),
})
export type Page = z.infer<typeof page>

const name = requiredLine('a name', 100)
export const newPage = pageContent.extend({ campaignId: z.int(), name })
export const pageChange = pageContent.partial().extend({ version: z.int(), name: name.optional() })

export const pagesApi = {
  list: endpoint({
    method: 'GET',
    path: '/pages',
    room: 'pages',
    access: { right: 'view', things: { campaign: 'query.campaignId' }, orAll: true },
    summary: 'The pages of a campaign, or of the whole workspace, by name',
    query: z.strictObject({ campaignId: idQuery.optional() }),
    answer: z.object({ rows: z.array(page) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/pages',
    room: 'pages',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Make a page',
    body: newPage,
    answer: page,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/pages/:id',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Change a page; live at once wherever it is led to',
    params: idParams,
    body: pageChange,
    answer: page,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/pages/:id',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Take a page away that nothing leads to',
    params: idParams,
  }),
}
