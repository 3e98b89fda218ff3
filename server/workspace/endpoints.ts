import { rateLimit } from 'express-rate-limit'
import { problemOf } from '@flimbo/core/api'
import {
  DEFAULT_SETTINGS,
  workspaceApi,
  workspaceSettings,
  type Session,
  type WorkspaceSettings,
} from '@flimbo/core/workspace'
import { mount, Refusal, wrongField, sendProblem, type Mounts } from '../api/index.ts'
import type { Config } from '../config/index.ts'
import type { Addresses, Doors } from '../line/index.ts'
import { tables, type Database, type PersonRow } from '../database/index.ts'
import { isPassword, pretendToCheck } from './passwords.ts'
import type { Sessions, SignedIn } from './sessions.ts'
import { readSetting, writeSetting, type Section } from './settings.ts'
import { isNew, setUpWorkspace } from './set-up.ts'

interface Parts {
  readonly database: Database
  readonly sessions: Sessions
  readonly doors: Doors
  readonly config: Pick<Config, 'standIns'>
  readonly addresses: Addresses
}

export const SETTINGS: Section<WorkspaceSettings> = {
  name: 'workspace',
  schema: workspaceSettings,
  fallback: DEFAULT_SETTINGS,
}

const ATTEMPTS = 10
const ATTEMPTS_WINDOW_MS = 10 * 60_000

/** Counts failed sign-ins from one address; successful ones are taken back. */
const fewAttempts = () =>
  rateLimit({
    windowMs: ATTEMPTS_WINDOW_MS,
    limit: ATTEMPTS,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    handler: (_request, response) => {
      sendProblem(
        response,
        problemOf('tooMany', 'Too many attempts to sign in from here. Wait ten minutes, then try again.'),
      )
    },
  })

/** The endpoints of workspace, as `core`’s contract describes them. */
export function workspaceEndpoints(
  mounts: Mounts,
  { database, sessions, config, addresses, doors }: Parts,
): void {
  async function sessionOf({ person, workspace }: Pick<SignedIn, 'person' | 'workspace'>): Promise<Session> {
    const clients = await database.read.findBy(tables.clients, { workspaceId: workspace.id })
    return { state: 'signed-in', person, workspace, clients, door: addresses.door, standIns: config.standIns }
  }

  async function sessionOfPerson(person: PersonRow): Promise<Session> {
    return sessionOf({
      person,
      workspace: await database.read.findOneByOrFail(tables.workspaces, { id: person.workspaceId }),
    })
  }

  mount(mounts, workspaceApi.session, async ({ request }): Promise<Session> => {
    const who = await sessions.whoAsks(request)
    if (who) return sessionOf(who)
    return { state: (await isNew(database)) ? 'new' : 'signed-out' }
  })

  mount(mounts, workspaceApi.people, async ({ who }) => ({
    rows: await database.read.find(tables.people, {
      select: { id: true, name: true },
      where: { workspaceId: who.workspace.id },
      order: { name: 'ASC' },
    }),
  }))

  mounts.router.post(workspaceApi.signIn.path, fewAttempts())
  mount(mounts, workspaceApi.signIn, async ({ body, response }) => {
    const person = await database.read.findOneBy(tables.people, { email: body.email })
    const right = person
      ? await isPassword(body.password, person.passwordHash)
      : await pretendToCheck(body.password)
    if (!person || !right)
      throw new Refusal('unauthenticated', 'E-mail address or password is wrong. Check both and try again.')
    await sessions.begin(response, person.id)
    return sessionOfPerson(person)
  })

  mount(mounts, workspaceApi.signOut, async ({ request, response }) => {
    await sessions.end(request, response)
  })

  mount(mounts, workspaceApi.setUp, async ({ body, response }) => {
    const id = await setUpWorkspace(database, body)
    await sessions.begin(response, id)
    return sessionOfPerson(await database.read.findOneByOrFail(tables.people, { id }))
  })

  mount(mounts, workspaceApi.settings, ({ who }) => readSetting(database.read, who.workspace.id, SETTINGS))
  mount(mounts, workspaceApi.changeSettings, async ({ body, who }) => {
    const stored = await writeSetting(database, who.workspace.id, SETTINGS, body)
    // What sites report is in this currency.
    await doors.forget({ what: 'goals' })
    return stored
  })

  mount(mounts, workspaceApi.changeClient, async ({ params: { id }, body: { domainId }, who }) => {
    const workspaceId = who.workspace.id
    return database.write(async (manager) => {
      const client = await manager.findOneByOrFail(tables.clients, { id })
      if (
        domainId !== null &&
        domainId !== 1 &&
        !(await manager.existsBy(tables.domains, { id: domainId, workspaceId, state: 'ready' }))
      )
        throw wrongField('domainId', 'This domain is not ready. Choose another.')
      await manager.update(tables.clients, { id }, { domainId })
      return { ...client, domainId }
    })
  })
}
