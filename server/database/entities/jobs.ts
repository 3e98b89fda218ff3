import { EntitySchema } from 'typeorm'
import type { JobKind, JobState } from '@flimbo/core/jobs'
import { id, integer, text, optionalText, optionalInteger, json } from './columns.ts'

/** What is carried out by and by. Moments are UTC milliseconds; days are calendar days of the campaign's zone. */

/** What must follow from a scan, stored in the scan's own commit. */
/** What must follow from a scan and has still to be carried out; `nextAt` is null where it was given up. */
export interface OutboxRow {
  id: number
  workspaceId: number
  /** What is to be done, and in which queue of its own: of hits, the visit tag. */
  kind: string
  topic: string
  at: number
  isTest: boolean
  payload: unknown
  attempts: number
  /** When it is tried; null where it was given up. */
  nextAt: number | null
  /** What went wrong the last time, in words. */
  fault: string
}

export interface JobRow {
  id: number
  workspaceId: number
  /** Who began it; null where Flimbo did. */
  personId: number | null
  campaignId: number | null
  kind: JobKind
  title: string
  payload: unknown
  state: JobState
  done: number
  total: number
  sentence: string
  attempts: number
  nextAt: number | null
  createdAt: number
  touchedAt: number
  endedAt: number | null
  /** The file it made, while that is kept. */
  fileName: string | null
  fileType: string | null
  fileBytes: number | null
}

export const outbox = new EntitySchema<OutboxRow>({
  name: 'outbox',
  columns: {
    id,
    workspaceId: integer,
    kind: text,
    topic: text,
    at: integer,
    isTest: { type: 'boolean' },
    payload: json,
    attempts: integer,
    nextAt: optionalInteger,
    fault: text,
  },
})

export const jobs = new EntitySchema<JobRow>({
  name: 'jobs',
  columns: {
    id,
    workspaceId: integer,
    personId: optionalInteger,
    campaignId: optionalInteger,
    kind: text,
    title: text,
    payload: json,
    state: text,
    done: integer,
    total: integer,
    sentence: text,
    attempts: integer,
    nextAt: optionalInteger,
    createdAt: integer,
    touchedAt: integer,
    endedAt: optionalInteger,
    fileName: optionalText,
    fileType: optionalText,
    fileBytes: optionalInteger,
  },
})
