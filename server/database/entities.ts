import { EntitySchema } from 'typeorm'
import type { Level } from '@flimbo/core/symbol'
import type { State } from '@flimbo/core/routing'
import type { Person } from '@flimbo/core/workspace'

/** Rows as they are stored. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */
export interface WorkspaceRow { id: number; name: string; zone: string; createdAt: number }
export interface PersonRow { id: number; workspaceId: number; name: string; email: string; role: Person['role']; passwordHash: string; createdAt: number }
export interface SessionRow { tokenHash: string; personId: number; createdAt: number; expiresAt: number }
export interface ClientRow { id: number; workspaceId: number; name: string; createdAt: number }
export interface CampaignRow {
  id: number; workspaceId: number; clientId: number; name: string; zone: string; utmCampaign: string
  startsOn: string | null; endsOn: string | null; version: number; createdAt: number
}
export interface RouteRow {
  id: number; campaignId: number; name: string; destination: string; state: State; note: string
  /** The revision in force; scans name it. */
  revisionId: number; version: number; createdAt: number; changedAt: number
}
export interface CodeRow {
  id: number; campaignId: number; routeId: number; slug: string; name: string
  medium: string; source: string; term: string; content: string
  level: Level; sizeMm: number; place: string; note: string
  state: State; version: number; createdAt: number
}
/** What a revision keeps of a route or a code. */
export type Snapshot = Record<string, string | number>
export interface RevisionRow {
  id: number; of: 'route' | 'code'; subjectId: number; number: number; at: number; personId: number
  before: Snapshot | null; after: Snapshot
}

const id = { type: 'integer', primary: true, generated: true } as const
const integer = { type: 'integer' } as const
const text = { type: 'text' } as const
const optionalText = { type: 'text', nullable: true } as const

const workspaces = new EntitySchema<WorkspaceRow>({
  name: 'workspaces', columns: { id, name: text, zone: text, createdAt: integer },
})
const people = new EntitySchema<PersonRow>({
  name: 'people', columns: { id, workspaceId: integer, name: text, email: text, role: text, passwordHash: text, createdAt: integer },
})
const sessions = new EntitySchema<SessionRow>({
  name: 'sessions', columns: { tokenHash: { type: 'text', primary: true }, personId: integer, createdAt: integer, expiresAt: integer },
})
const clients = new EntitySchema<ClientRow>({
  name: 'clients', columns: { id, workspaceId: integer, name: text, createdAt: integer },
})
const campaigns = new EntitySchema<CampaignRow>({
  name: 'campaigns',
  columns: {
    id, workspaceId: integer, clientId: integer, name: text, zone: text, utmCampaign: text,
    startsOn: optionalText, endsOn: optionalText, version: integer, createdAt: integer,
  },
})
const routes = new EntitySchema<RouteRow>({
  name: 'routes',
  columns: {
    id, campaignId: integer, name: text, destination: text, state: text, note: text,
    revisionId: integer, version: integer, createdAt: integer, changedAt: integer,
  },
})
const codes = new EntitySchema<CodeRow>({
  name: 'codes',
  columns: {
    id, campaignId: integer, routeId: integer, slug: text, name: text, medium: text, source: text, term: text, content: text,
    level: text, sizeMm: { type: 'real' }, place: text, note: text, state: text, version: integer, createdAt: integer,
  },
})
const revisions = new EntitySchema<RevisionRow>({
  name: 'revisions',
  columns: {
    id, of: text, subjectId: integer, number: integer, at: integer, personId: integer,
    before: { type: 'simple-json', nullable: true }, after: { type: 'simple-json' },
  },
})

/** Every table TypeORM knows; scans and what belongs to them are reached by prepared SQL alone. */
export const tables = { workspaces, people, sessions, clients, campaigns, routes, codes, revisions }
