import { zoneName } from '../time/index.ts'
import { z } from 'zod'
import { email, endpoint, idParams, requiredLine, versioned, versionedChange } from '../api/index.ts'
import { SLUG_LENGTH, SLUG_LENGTHS } from '../codes/index.ts'

export const ROLES = ['admin', 'editor', 'viewer'] as const
export type Role = (typeof ROLES)[number]

export const person = z.object({ id: z.int(), name: z.string(), email: z.string(), role: z.enum(ROLES) })
export type Person = z.infer<typeof person>

export const workspace = z.object({ id: z.int(), name: z.string(), zone: z.string() })
export type Workspace = z.infer<typeof workspace>

export const client = z.object({ id: z.int(), name: z.string(), domainId: z.int().nullable() })

/** What a workspace decides once for all its campaigns. */
export const workspaceSettings = z.strictObject({
  /** How many signs a generated short link has. */
  slugLength: z
    .int({ error: 'Give the length as a whole number.' })
    .min(SLUG_LENGTHS.min, `Make short links at least ${String(SLUG_LENGTHS.min)} characters long.`)
    .max(SLUG_LENGTHS.max, `Make short links no longer than ${String(SLUG_LENGTHS.max)} characters.`),
  /** ISO 4217 code of the currency costs are in. */
  currency: z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'Give the currency by its three letters, such as EUR.'),
})
export type WorkspaceSettings = z.infer<typeof workspaceSettings>
export const DEFAULT_SETTINGS: WorkspaceSettings = { slugLength: SLUG_LENGTH, currency: 'EUR' }
export type Client = z.infer<typeof client>

/**
 * Where a visit to the office stands: nobody has set Flimbo up yet, nobody is signed in, or somebody
 * is. `door` is the origin short links begin with; `standIns` tells whether the phone and its
 * destination site are running beside this installation.
 */
export const session = z.discriminatedUnion('state', [
  z.object({ state: z.literal('new') }),
  z.object({ state: z.literal('signed-out') }),
  z.object({
    state: z.literal('signed-in'),
    person,
    workspace,
    clients: z.array(client),
    door: z.string(),
    standIns: z.boolean(),
  }),
])
export type Session = z.infer<typeof session>

const newPassword = z
  .string({ error: 'Choose a password.' })
  .min(12, 'Choose a password of at least 12 characters; a few words in a row do well.')
  .max(200, 'Make the password no longer than 200 characters.')

export const signIn = z.strictObject({
  email,
  password: z.string({ error: 'Give your password.' }).min(1, 'Give your password.').max(200),
})

export const setUp = z.strictObject({
  workspace: requiredLine('the name of your organisation', 120),
  zone: zoneName,
  name: requiredLine('your name', 120),
  email,
  password: newPassword,
})
export type SetUp = z.input<typeof setUp>

export const workspaceApi = {
  session: endpoint({
    method: 'GET',
    path: '/session',
    room: 'workspace',
    access: 'anybody',
    summary: 'Who is signed in',
    answer: session,
  }),
  people: endpoint({
    method: 'GET',
    path: '/people',
    room: 'workspace',
    access: { right: 'view' },
    summary: 'Who works in the workspace, by name',
    answer: z.object({ rows: z.array(z.object({ id: z.int(), name: z.string() })) }),
  }),
  signIn: endpoint({
    method: 'POST',
    path: '/session',
    room: 'workspace',
    access: 'anybody',
    summary: 'Sign in with e-mail and password',
    body: signIn,
    answer: session,
  }),
  signOut: endpoint({
    method: 'DELETE',
    path: '/session',
    room: 'workspace',
    access: 'anybody',
    summary: 'Sign out',
  }),
  setUp: endpoint({
    method: 'POST',
    path: '/owner',
    room: 'workspace',
    access: 'anybody',
    status: 201,
    summary: 'Create the workspace and its owner, on the first visit only',
    body: setUp,
    answer: session,
  }),
  settings: endpoint({
    method: 'GET',
    path: '/settings',
    room: 'workspace',
    access: { right: 'view' },
    summary: 'What the workspace decided for all its campaigns',
    answer: versioned(workspaceSettings),
  }),
  changeSettings: endpoint({
    method: 'PATCH',
    path: '/settings',
    room: 'workspace',
    access: { right: 'edit' },
    summary: 'Decide it anew',
    body: versionedChange(workspaceSettings),
    answer: versioned(workspaceSettings),
  }),
  changeClient: endpoint({
    method: 'PATCH',
    path: '/clients/:id',
    room: 'workspace',
    access: { right: 'edit', things: { client: 'params.id' } },
    summary: 'Choose the domain of a client’s new short links',
    params: idParams,
    body: z.strictObject({ domainId: z.int().nullable() }),
    answer: client,
  }),
}
