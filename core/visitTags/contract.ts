import { z } from 'zod'
import { endpoint, versioned, versionedChange } from '../api/index.ts'
import { visitTagSettings } from './visitTag.ts'

const tagParams = z.strictObject({ tag: z.string().max(16) })

/** Hits of one tag that the server has still to send. Times are UTC ms. */
const queueRow = z.object({
  tagId: z.string(),
  waiting: z.int(),
  /** Hits that could not be sent for three days and are tried no more until somebody says so. */
  givenUp: z.int(),
  oldestAt: z.int(),
  /** When the next is tried; null where none is. */
  nextAt: z.int().nullable(),
  /** What the collector answered last, in words; empty where nothing went wrong. */
  fault: z.string(),
})
export type QueueRow = z.infer<typeof queueRow>

/** One hit that the collector stand-in was sent. */
const receivedHit = z.object({
  number: z.int(),
  at: z.int(),
  by: z.enum(['phone', 'server']),
  method: z.string(),
  site: z.string(),
  path: z.string(),
  values: z.array(z.tuple([z.string(), z.string()])),
})
export type ReceivedHit = z.infer<typeof receivedHit>

export const visitTagsApi = {
  settings: endpoint({
    method: 'GET',
    path: '/visit-tags',
    room: 'visitTags',
    access: { right: 'view' },
    summary: 'The snippets that routes may fire on the way',
    answer: versioned(visitTagSettings),
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/visit-tags',
    room: 'visitTags',
    access: { right: 'administer' },
    summary: 'Define them anew; live at once',
    body: versionedChange(visitTagSettings),
    answer: versioned(visitTagSettings),
  }),
  queue: endpoint({
    method: 'GET',
    path: '/visit-tags/queue',
    room: 'visitTags',
    access: { right: 'view' },
    summary: 'Hits that the server has still to send',
    answer: z.object({ rows: z.array(queueRow) }),
  }),
  sendAgain: endpoint({
    method: 'POST',
    path: '/visit-tags/:tag/queue',
    room: 'visitTags',
    access: { right: 'administer' },
    summary: 'Try the waiting hits of a tag again now, those given up too',
    params: tagParams,
  }),
  drop: endpoint({
    method: 'DELETE',
    path: '/visit-tags/:tag/queue',
    room: 'visitTags',
    access: { right: 'administer' },
    summary: 'Delete the waiting hits of a tag',
    params: tagParams,
  }),
  received: endpoint({
    method: 'GET',
    path: '/visit-tags/received',
    standIn: true,
    room: 'visitTags',
    access: { right: 'view' },
    summary: 'What the collector stand-in was sent lately, the newest first',
    answer: z.object({ rows: z.array(receivedHit) }),
  }),
}
