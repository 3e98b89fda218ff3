import { z } from 'zod'
import { endpoint, requiredLine } from '../api/index.ts'
import { zoneName } from './zone.ts'

export const ROLES = ['admin', 'editor', 'viewer'] as const

export const person = z.object({ id: z.int(), name: z.string(), email: z.string(), role: z.enum(ROLES) })
export type Person = z.infer<typeof person>

export const workspace = z.object({ id: z.int(), name: z.string(), zone: z.string() })
export type Workspace = z.infer<typeof workspace>

export const client = z.object({ id: z.int(), name: z.string() })
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

const email = z
  .string({ error: 'Give an e-mail address.' })
  .trim()
  .toLowerCase()
  .max(254, 'That is longer than an e-mail address can be.')
  .pipe(z.email('Give a whole e-mail address, such as anna@saltmarsh.example.'))

const newPassword = z
  .string({ error: 'Choose a password.' })
  .min(12, 'Choose a password of at least 12 characters; a few words in a row do well.')
  .max(200, 'Make the password no longer than 200 characters.')

export const signIn = z.strictObject({ email, password: z.string({ error: 'Give your password.' }).min(1, 'Give your password.').max(200) })

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
    method: 'GET', path: '/session', room: 'workspace', open: true, summary: 'Who is signed in',
    answer: session,
  }),
  signIn: endpoint({
    method: 'POST', path: '/session', room: 'workspace', open: true, summary: 'Sign in with e-mail and password',
    body: signIn, answer: session,
  }),
  signOut: endpoint({ method: 'DELETE', path: '/session', room: 'workspace', open: true, summary: 'Sign out' }),
  setUp: endpoint({
    method: 'POST', path: '/owner', room: 'workspace', open: true, status: 201,
    summary: 'Create the workspace and its owner, on the first visit only',
    body: setUp, answer: session,
  }),
}
