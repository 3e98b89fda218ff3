import { z } from 'zod'
import { endpoint, idParams, idQuery, requiredLine } from '../api/index.ts'
import { fileKey, storedFile } from '../files/index.ts'
import { pageContent } from './content.ts'
import { languageTag } from '../fields/index.ts'
import { STARTS } from './starts.ts'

/** A small mobile page that Flimbo itself serves where a lane or a bound of a route leads to it. */
export const page = z.object({
  id: z.int(),
  campaignId: z.int(),
  name: z.string(),
  version: z.int(),
  /** The revision that is live; 0 before it is first published. */
  revisionId: z.int(),
  createdAt: z.int(),
  changedAt: z.int(),
  /** What phones are shown; null before it is first published. */
  live: pageContent.nullable(),
  /** What is to be shown next; null where nothing is prepared. */
  draft: pageContent.nullable(),
  /** Goes up with each change of the draft, its end too. */
  draftVersion: z.int(),
  /** The routes that lead to it now; a draft does not yet. */
  routes: z.array(z.object({ id: z.int(), name: z.string() })),
  /** The uploaded files that it shows, or is to show. */
  files: z.array(storedFile),
})
export type Page = z.infer<typeof page>

/** A page in a list. */
export const pageSummary = page
  .omit({ live: true, draft: true, files: true })
  .extend({ parts: z.int(), languages: z.array(z.string()), hasDraft: z.boolean() })
export type PageSummary = z.infer<typeof pageSummary>

const name = requiredLine('a name', 100)
export const newPage = z.strictObject({
  campaignId: z.int(),
  name,
  /** What it begins with; nothing to begin with an empty one. */
  start: z
    .enum(STARTS.map(({ key }) => key))
    .nullable()
    .default(null),
  /** In which language, where it begins with something. */
  language: languageTag.default('en'),
})

/** A state of a page that was published once. */
export const pageRevision = z.object({
  number: z.int(),
  at: z.int(),
  by: z.string(),
  /** What changed, in sentences; that it was made, of the first. */
  changes: z.array(z.string()),
})
export type PageRevision = z.infer<typeof pageRevision>

/** Uploaded files that a page shows are named by their keys, anywhere in its content. */
const draftBody = z.strictObject({ draftVersion: z.int(), content: pageContent })

export const pagesApi = {
  list: endpoint({
    method: 'GET',
    path: '/pages',
    room: 'pages',
    access: { right: 'view', things: { campaign: 'query.campaignId' }, orAll: true },
    summary: 'The pages of a campaign, or of the whole workspace, by name',
    query: z.strictObject({ campaignId: idQuery.optional() }),
    answer: z.object({ rows: z.array(pageSummary) }),
  }),
  get: endpoint({
    method: 'GET',
    path: '/pages/:id',
    room: 'pages',
    access: { right: 'view', things: { page: 'params.id' } },
    summary: 'A page, with what is live and what is prepared',
    params: idParams,
    answer: page,
  }),
  create: endpoint({
    method: 'POST',
    path: '/pages',
    room: 'pages',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Make a page as a draft, empty or from one of the starting pages',
    body: newPage,
    answer: page,
  }),
  createForFile: endpoint({
    method: 'POST',
    path: '/page-files',
    room: 'pages',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Make an uploaded file a destination: a published page that is nothing else',
    body: z.strictObject({ campaignId: z.int(), key: fileKey }),
    answer: page,
  }),
  rename: endpoint({
    method: 'PATCH',
    path: '/pages/:id',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Give a page another name; visitors do not see it',
    params: idParams,
    body: z.strictObject({ version: z.int(), name }),
    answer: page,
  }),
  copy: endpoint({
    method: 'POST',
    path: '/pages/:id/copy',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    status: 201,
    summary: 'Make another page with the same content, as a draft in the same campaign',
    params: idParams,
    answer: page,
  }),
  saveDraft: endpoint({
    method: 'PATCH',
    path: '/pages/:id/draft',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Save what a page is to show next; phones are shown it when it is published',
    params: idParams,
    body: draftBody,
    answer: page,
  }),
  discardDraft: endpoint({
    method: 'DELETE',
    path: '/pages/:id/draft',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Discard what is prepared: the page stays as it is live',
    params: idParams,
    query: z.strictObject({ draftVersion: idQuery }),
    answer: page,
  }),
  publish: endpoint({
    method: 'POST',
    path: '/pages/:id/publish',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Show phones what is prepared, from the next scan on',
    params: idParams,
    body: z.strictObject({ draftVersion: z.int() }),
    answer: page,
  }),
  revisions: endpoint({
    method: 'GET',
    path: '/pages/:id/revisions',
    room: 'pages',
    access: { right: 'view', things: { page: 'params.id' } },
    summary: 'What a page showed, the newest first, in words',
    params: idParams,
    answer: z.object({ rows: z.array(pageRevision) }),
  }),
  goBack: endpoint({
    method: 'POST',
    path: '/pages/:id/go-back',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Show again what a page showed before, from the next scan on, as a revision of its own',
    params: idParams,
    body: z.strictObject({ version: z.int(), number: z.int().min(1) }),
    answer: page,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/pages/:id',
    room: 'pages',
    access: { right: 'edit', things: { page: 'params.id' } },
    summary: 'Delete a page that nothing leads to',
    params: idParams,
  }),
}
