import type { Placement } from '@flimbo/core/symbol'
import { EntitySchema } from 'typeorm'
import type { Expectation, Lane, LinkedPage, Rules, State } from '@flimbo/core/routing'
import { id, integer, text, json } from './columns.ts'

/** Where scans go, and every change of it. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */

export interface RouteDraft {
  destination: string
  rules: Rules
  personId: number
  at: number
}

/** What a revision keeps of a route or a code. */
export type Snapshot = Record<
  string,
  string | number | boolean | null | Record<string, string> | Rules | Lane[] | LinkedPage[] | Placement
>

export interface RouteRow {
  id: number
  campaignId: number
  name: string
  destination: string
  state: State
  note: string
  rules: Rules
  passwordHash: string
  /** What is being prepared, and how often that was changed. */
  draft: RouteDraft | null
  draftVersion: number
  expectations: Expectation[]
  /** The revision in force; scans name it. */
  revisionId: number
  version: number
  createdAt: number
  changedAt: number
}

/** Lanes that many routes share. */
export interface LaneSetRow {
  id: number
  workspaceId: number
  name: string
  lanes: Lane[]
  version: number
  createdAt: number
  changedAt: number
}

export interface RevisionRow {
  id: number
  of: 'route' | 'code'
  subjectId: number
  number: number
  at: number
  personId: number
  before: Snapshot | null
  after: Snapshot
}

export const routes = new EntitySchema<RouteRow>({
  name: 'routes',
  columns: {
    id,
    campaignId: integer,
    name: text,
    destination: text,
    state: text,
    note: text,
    rules: json,
    passwordHash: text,
    draft: { type: 'simple-json', nullable: true },
    draftVersion: integer,
    expectations: json,
    revisionId: integer,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})

export const laneSets = new EntitySchema<LaneSetRow>({
  name: 'lane_sets',
  columns: {
    id,
    workspaceId: integer,
    name: text,
    lanes: json,
    version: integer,
    createdAt: integer,
    changedAt: integer,
  },
})

export const revisions = new EntitySchema<RevisionRow>({
  name: 'revisions',
  columns: {
    id,
    of: text,
    subjectId: integer,
    number: integer,
    at: integer,
    personId: integer,
    before: { type: 'simple-json', nullable: true },
    after: { type: 'simple-json' },
  },
})

/** Every table TypeORM knows; scans and what belongs to them are reached by prepared SQL alone. */
