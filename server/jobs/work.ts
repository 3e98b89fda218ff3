import type { EntityManager } from 'typeorm'
import type { JobKind } from '@flimbo/core/jobs'
import type { JobRow } from '../database/index.ts'

/** Thrown by work that was asked to stop. The message says what was kept. */
export class JobCancelled extends Error {
  override readonly name = 'JobCancelled'
}

/** What came of a job. */
export interface JobResult {
  readonly sentence: string
  /** Where it wrote a file to `context.file`: what it is called, and its media type. */
  readonly file?: { readonly name: string; readonly type: string }
}

/** What a job is given while it runs. */
export interface JobContext {
  /** Goes off when it is cancelled, and when the office stops. */
  readonly signal: AbortSignal
  /** Where it may write a file. */
  readonly file: string
  /** Says how far it is, and throws where it was asked to stop. @throws JobCancelled */
  readonly progress: (done: number, total: number) => void
  /** Marks it as done in the very transaction that stores what it did: whatever stops then, it is not done twice. */
  readonly settle: (manager: EntityManager, sentence: string) => Promise<void>
}

/** How one kind of job is carried out. */
export interface JobWork {
  readonly kind: JobKind
  /** So many of the kind run at the same time. */
  readonly atOnce: number
  /** So often it is tried before it has failed for good; a Refusal is no try. */
  readonly tries: number
  run(job: JobRow, context: JobContext): Promise<JobResult>
}

export interface NewJob {
  readonly kind: JobKind
  readonly workspaceId: number
  readonly personId: number | null
  readonly campaignId: number | null
  readonly title: string
  readonly payload: unknown
}
