import { EntitySchema } from 'typeorm'
import type { Person } from '@flimbo/core/workspace'
import { id, integer, text, json } from './columns.ts'

/** Who works here, and what they settled. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */

export interface WorkspaceRow {
  id: number
  name: string
  zone: string
  domainId: number
  createdAt: number
}

export interface PersonRow {
  id: number
  workspaceId: number
  name: string
  email: string
  role: Person['role']
  passwordHash: string
  createdAt: number
}

export interface SessionRow {
  tokenHash: string
  personId: number
  createdAt: number
  expiresAt: number
}

export interface SettingRow {
  workspaceId: number
  section: string
  value: unknown
  version: number
}

export interface PreferenceRow {
  personId: number
  name: string
  value: unknown
}

export interface ViewRow {
  id: number
  workspaceId: number
  name: string
  value: unknown
}

export const workspaces = new EntitySchema<WorkspaceRow>({
  name: 'workspaces',
  columns: { id, name: text, zone: text, domainId: { type: 'integer', default: 1 }, createdAt: integer },
})

export const people = new EntitySchema<PersonRow>({
  name: 'people',
  columns: {
    id,
    workspaceId: integer,
    name: text,
    email: text,
    role: text,
    passwordHash: text,
    createdAt: integer,
  },
})

export const sessions = new EntitySchema<SessionRow>({
  name: 'sessions',
  columns: {
    tokenHash: { type: 'text', primary: true },
    personId: integer,
    createdAt: integer,
    expiresAt: integer,
  },
})

export const settings = new EntitySchema<SettingRow>({
  name: 'settings',
  columns: {
    workspaceId: { type: 'integer', primary: true },
    section: { type: 'text', primary: true },
    value: json,
    version: integer,
  },
})

export const preferences = new EntitySchema<PreferenceRow>({
  name: 'preferences',
  columns: {
    personId: { type: 'integer', primary: true },
    name: { type: 'text', primary: true },
    value: json,
  },
})

export const views = new EntitySchema<ViewRow>({
  name: 'views',
  columns: { id, workspaceId: integer, name: text, value: json },
})
