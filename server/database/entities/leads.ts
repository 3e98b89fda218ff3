import { EntitySchema } from 'typeorm'
import type { LeadRecord } from '../../leads/record.ts'
import { id, integer, json, optionalInteger, text } from './columns.ts'

/** Somebody who answered a form. Moments are UTC milliseconds. */
export interface LeadRow extends LeadRecord {
  id: number
  tags: string[]
  /** Where the office stands with it: one of the workspace's own states. */
  state: string
  /** Whom somebody said they are the same person as; empty where mail address and telephone number tell. */
  personMark: string
  assignedTo: number | null
  version: number
  /** Until when its mail address can be confirmed; null where nobody asked. And when it was; null where not yet. */
  confirmBy: number | null
  confirmedAt: number | null
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
    title: text,
    search: text,
    tags: json,
    state: text,
    assignedTo: optionalInteger,
    held: text,
    apart: text,
    version: integer,
    personMark: text,
    confirmBy: optionalInteger,
    confirmedAt: optionalInteger,
  },
})

export interface LeadNoteRow {
  id: number
  leadId: number
  at: number
  personId: number
  text: string
}
export const leadNotes = new EntitySchema<LeadNoteRow>({
  name: 'lead_notes',
  columns: { id, leadId: integer, at: integer, personId: integer, text },
})

/** That answers were erased, how many and by whom; nothing of whose they were. */
export interface ErasureRow {
  id: number
  workspaceId: number
  at: number
  /** Null where the form’s own rule did it. */
  personId: number | null
  leads: number
  files: number
  why: 'asked' | 'retention'
}
export const erasures = new EntitySchema<ErasureRow>({
  name: 'erasures',
  columns: {
    id,
    workspaceId: integer,
    at: integer,
    personId: optionalInteger,
    leads: integer,
    files: integer,
    why: text,
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
