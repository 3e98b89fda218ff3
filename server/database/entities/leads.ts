import { EntitySchema } from 'typeorm'
import type { LeadRecord } from '../../leads/record.ts'
import { id, integer, json, optionalInteger, text } from './columns.ts'

/** Somebody who answered a form. Moments are UTC milliseconds. */
export interface LeadRow extends LeadRecord {
  id: number
  /** Where the office stands with it: one of the workspace's own states. */
  state: string
  assignedTo: number | null
  version: number
}

export const leads = new EntitySchema<LeadRow>({
  name: 'leads',
  columns: {
    id,
    workspaceId: integer,
    campaignId: integer,
    pageId: integer,
    pageRevisionId: integer,
    part: text,
    sendKey: text,
    at: integer,
    scanId: integer,
    codeId: integer,
    routeId: integer,
    revisionId: integer,
    language: text,
    country: text,
    region: text,
    city: text,
    device: text,
    system: text,
    utm: json,
    answers: json,
    consents: json,
    email: text,
    phone: text,
    day: text,
    visitor: text,
    state: text,
    assignedTo: optionalInteger,
    held: text,
    apart: text,
    version: integer,
  },
})

/** How many answers a form took. */
export interface FormCountRow {
  pageId: number
  part: string
  answers: number
}

export const formCounts = new EntitySchema<FormCountRow>({
  name: 'form_counts',
  columns: {
    pageId: { type: 'integer', primary: true },
    part: { type: 'text', primary: true },
    answers: integer,
  },
})
