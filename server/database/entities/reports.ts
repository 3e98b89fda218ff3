import { EntitySchema } from 'typeorm'
import type { MailingSettings, ReportContent } from '@flimbo/core/reports'
import { id, integer, json, optionalInteger, text } from './columns.ts'

/** A saved set of questions to the figures. Moments are UTC milliseconds. */
export interface ReportRow {
  id: number
  workspaceId: number
  /** Whose it is; both null for the whole workspace. */
  clientId: number | null
  campaignId: number | null
  name: string
  content: ReportContent
  version: number
  personId: number
  createdAt: number
  changedAt: number
}

export const reports = new EntitySchema<ReportRow>({
  name: 'reports',
  columns: {
    id,
    workspaceId: integer,
    clientId: optionalInteger,
    campaignId: optionalInteger,
    name: text,
    content: json,
    version: integer,
    personId: integer,
    createdAt: integer,
    changedAt: integer,
  },
})

/** A read-only link to a report. */
export interface ReportLinkRow {
  id: number
  workspaceId: number
  reportId: number
  /** Its last day, and the moment at which that ends. */
  until: string
  endsAt: number
  /** Empty for none. */
  passwordHash: string
  personId: number
  createdAt: number
  opened: number
  openedAt: number | null
}

export const reportLinks = new EntitySchema<ReportLinkRow>({
  name: 'report_links',
  columns: {
    id,
    workspaceId: integer,
    reportId: integer,
    until: text,
    endsAt: integer,
    passwordHash: text,
    personId: integer,
    createdAt: integer,
    opened: integer,
    openedAt: optionalInteger,
  },
})

/** When a report is mailed, and what became of it last. */
export interface ReportMailingRow {
  id: number
  workspaceId: number
  reportId: number
  settings: MailingSettings
  /** Who is told where it cannot be made. */
  personId: number
  /** When it comes next; null while it is paused. */
  nextAt: number | null
  sentAt: number | null
  fault: string
  createdAt: number
}

export const reportMailings = new EntitySchema<ReportMailingRow>({
  name: 'report_mailings',
  columns: {
    id,
    workspaceId: integer,
    reportId: integer,
    settings: json,
    personId: integer,
    nextAt: optionalInteger,
    sentAt: optionalInteger,
    fault: text,
    createdAt: integer,
  },
})
