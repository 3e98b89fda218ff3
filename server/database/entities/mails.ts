import { EntitySchema } from 'typeorm'
import type { MailKind } from '@flimbo/core/mail'
import type { WatchEvery, WatchOf, WatchWhat } from '@flimbo/core/watches'
import { id, integer, json, optionalInteger, text } from './columns.ts'

/** A mail that was sent or is to be: who it is for is worked out when it is written. Moments are UTC milliseconds. */
export interface MailRow {
  id: number
  workspaceId: number
  campaignId: number | null
  /** Whose answers it is about; it goes with them. */
  leadId: number | null
  /** Who of the workspace it is for; null where it is for whoever answered. */
  personId: number | null
  /** What it was sent for. */
  watchId: number | null
  kind: MailKind
  /** The left side of its Message-ID: the same however often it is sent. */
  messageKey: string
  payload: unknown
  at: number
  /** Its entry in the outbox; null where it has none yet. */
  outboxId: number | null
  /** Whom it went to, and what it was called; empty until it was written. */
  address: string
  subject: string
  state: 'waiting' | 'sent' | 'refused' | 'unconfirmed'
  settledAt: number | null
  reply: string
}

export const mails = new EntitySchema<MailRow>({
  name: 'mails',
  columns: {
    id,
    workspaceId: integer,
    campaignId: optionalInteger,
    leadId: optionalInteger,
    personId: optionalInteger,
    watchId: optionalInteger,
    kind: text,
    messageKey: text,
    payload: json,
    at: integer,
    outboxId: optionalInteger,
    address: text,
    subject: text,
    state: text,
    settledAt: optionalInteger,
    reply: text,
  },
})

/** What somebody is told of, and when. */
export interface WatchRow {
  id: number
  workspaceId: number
  personId: number
  of: WatchOf
  refId: number
  what: WatchWhat
  every: WatchEvery
  /** How many scans or days, where it is about so many. */
  n: number | null
  /** What is known from the last look. */
  state: unknown
  /** When it is looked at again; null where nothing is to be looked at. */
  nextAt: number | null
  createdAt: number
}

export const watches = new EntitySchema<WatchRow>({
  name: 'watches',
  columns: {
    id,
    workspaceId: integer,
    personId: integer,
    of: text,
    refId: integer,
    what: text,
    every: text,
    n: optionalInteger,
    state: json,
    nextAt: optionalInteger,
    createdAt: integer,
  },
})

/** Something that happened which somebody watches for. */
export interface NoticeRow {
  id: number
  workspaceId: number
  personId: number
  watchId: number
  campaignId: number
  of: WatchOf
  refId: number
  at: number
  sentence: string
  /** When it was taken off the desk; null where it stands there. */
  seenAt: number | null
}

export const notices = new EntitySchema<NoticeRow>({
  name: 'notices',
  columns: {
    id,
    workspaceId: integer,
    personId: integer,
    watchId: integer,
    campaignId: integer,
    of: text,
    refId: integer,
    at: integer,
    sentence: text,
    seenAt: optionalInteger,
  },
})
