import { z } from 'zod'
import { endpoint, idParams, idQuery, pageOf, pageQuery } from '../api/index.ts'

/** What may take longer than an answer. */
export const JOB_KINDS = [
  'import',
  'destination-check',
  'export',
  'proof',
  'release',
  'packing',
  'folding',
  'report',
] as const
/** What Flimbo itself needs, and goes on with. */
const OWN_KINDS: readonly JobKind[] = ['packing', 'folding']
export type JobKind = (typeof JOB_KINDS)[number]

/** A draft waits for somebody to begin it; what waits is begun by itself. */
export const JOB_STATES = ['draft', 'waiting', 'running', 'done', 'failed', 'cancelled'] as const
export type JobState = (typeof JOB_STATES)[number]

/** Whether a job still has something to do. */
export function isActive({ state }: { readonly state: JobState }): boolean {
  return state === 'waiting' || state === 'running'
}

/** Whether somebody may stop it. */
export function canCancel(job: { readonly kind: JobKind; readonly state: JobState }): boolean {
  return isActive(job) && !OWN_KINDS.includes(job.kind)
}

export const job = z.object({
  id: z.int(),
  kind: z.enum(JOB_KINDS),
  /** What it does, in words. */
  title: z.string(),
  state: z.enum(JOB_STATES),
  /** The campaign it concerns; null for the whole workspace. */
  campaignId: z.int().nullable(),
  /** Who began it; null where Flimbo itself did. */
  by: z.string().nullable(),
  /** Whether that is whoever asks. */
  own: z.boolean(),
  /** How much of it is done, of what there is; 0 of 0 while that is not known. */
  done: z.int(),
  total: z.int(),
  /** What came of it, or why it is tried again; empty while there is nothing to say. */
  sentence: z.string(),
  attempts: z.int(),
  /** When it is begun or tried again (UTC ms); null where it is not waiting. */
  nextAt: z.int().nullable(),
  createdAt: z.int(),
  endedAt: z.int().nullable(),
  /** A file it made, while that is kept. */
  file: z.object({ name: z.string(), bytes: z.int() }).nullable(),
})
export type Job = z.infer<typeof job>

export const jobsApi = {
  list: endpoint({
    method: 'GET',
    path: '/jobs',
    room: 'jobs',
    access: { right: 'view', things: { campaign: 'query.campaignId' }, orAll: true },
    summary: 'What takes longer than an answer: under way, waiting and of the last weeks, the newest first',
    query: pageQuery(['createdAt'], 'createdAt').extend({
      campaignId: idQuery.optional(),
      shown: z.enum(['all', 'active', 'own']).default('all'),
    }),
    answer: pageOf(job),
  }),
  get: endpoint({
    method: 'GET',
    path: '/jobs/:id',
    room: 'jobs',
    access: { right: 'view', things: { job: 'params.id' } },
    summary: 'One job',
    params: idParams,
    answer: job,
  }),
  cancel: endpoint({
    method: 'DELETE',
    path: '/jobs/:id',
    room: 'jobs',
    access: { right: 'edit', things: { job: 'params.id' } },
    summary: 'Cancel a job; what it has changed is taken back where the whole of it is meant',
    params: idParams,
    answer: job,
  }),
  retry: endpoint({
    method: 'POST',
    path: '/jobs/:id/attempts',
    room: 'jobs',
    access: { right: 'edit', things: { job: 'params.id' } },
    summary: 'Try a job that failed, or waits for its next attempt, now',
    params: idParams,
    answer: job,
  }),
  file: endpoint({
    method: 'GET',
    path: '/jobs/:id/file',
    room: 'jobs',
    access: { right: 'view', things: { job: 'params.id' } },
    summary: 'The file a job made',
    params: idParams,
    answers: 'application/octet-stream',
  }),
}
