import { z } from 'zod'
import { endpoint, idParams, requiredLine } from '../api/index.ts'
import { pageStyle, styleFaults } from './style.ts'

export const PAGE_STYLES_MAX = 100

/** A style that can be read; what is wrong with it is said at its place. */
const readable = pageStyle.superRefine((style, context) => {
  for (const { path, sentence } of styleFaults(style))
    context.addIssue({ code: 'custom', path: path.split('.'), message: sentence })
})

/** How pages look, as it is kept for a workspace or one of its clients. */
export const savedStyle = z.object({
  id: z.int(),
  /** Whose it is; null for the whole workspace. */
  clientId: z.int().nullable(),
  name: z.string(),
  style: pageStyle,
  /** Whether the client's or workspace's pages that choose none look like this, and what the front door itself says. */
  isDefault: z.boolean(),
  version: z.int(),
  createdAt: z.int(),
  /** Pages that chose it. */
  pages: z.int(),
})
export type SavedStyle = z.infer<typeof savedStyle>

export const newPageStyle = z.strictObject({
  name: requiredLine('a name', 80),
  style: readable,
  clientId: z.int().nullable().default(null),
  isDefault: z.boolean().default(false),
})

export const pageStylesApi = {
  list: endpoint({
    method: 'GET',
    path: '/page-styles',
    room: 'pages',
    access: { right: 'view' },
    summary: 'The page styles of the workspace and its clients, by name',
    answer: z.object({ rows: z.array(savedStyle) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/page-styles',
    room: 'pages',
    access: { right: 'edit', things: { client: 'body.clientId' } },
    status: 201,
    summary: 'Save how pages look; what people could not read is refused (WCAG 2.2 AA)',
    body: newPageStyle,
    answer: savedStyle,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/page-styles/:id',
    room: 'pages',
    access: { right: 'edit', things: { pageStyle: 'params.id', client: 'body.clientId' } },
    summary: 'Change a page style, and at once every page that looks like it',
    params: idParams,
    body: z
      .strictObject({ version: z.int() })
      .extend(newPageStyle.omit({ clientId: true, isDefault: true }).partial().shape)
      .extend({ clientId: z.int().nullable().optional(), isDefault: z.boolean().optional() }),
    answer: savedStyle,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/page-styles/:id',
    room: 'pages',
    access: { right: 'edit', things: { pageStyle: 'params.id' } },
    summary: 'Delete a page style that no page chose',
    params: idParams,
  }),
}
