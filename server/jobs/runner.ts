import { mkdirSync, readdirSync } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { In, IsNull, LessThan, LessThanOrEqual, MoreThan, Not, type EntityManager } from 'typeorm'
import type { Logger } from 'pino'
import { isActive, pauseAfter, type JobKind } from '@flimbo/core/jobs'
import { Refusal } from '../api/index.ts'
import { insertedId, tables, type Database, type JobRow } from '../database/index.ts'
import type { LiveHub } from '../scans/index.ts'

/** How often it is looked whether something is to be begun. */
const LOOK_MS = 1000
const TIDY_MS = 60 * 60_000
const DAY_MS = 24 * 60 * 60_000
/** What has ended is shown for so long; files are kept, and drafts wait, for a day. */
const ENDED_KEPT_MS = 30 * DAY_MS
/** A job that was begun so often without ever coming to an end takes the office with it: it is not begun again. */
const INTERRUPTED_MAX = 5
const WENT_WRONG = 'Something went wrong on the server, and nothing of it was kept.'

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

interface Running {
  readonly kind: JobKind
  readonly stopper: AbortController
  readonly ended: Promise<void>
  done: number
  total: number
}

interface Parts {
  readonly database: Database
  readonly live: LiveHub
  readonly log: Pick<Logger, 'error'>
  /** Where files of jobs are kept. */
  readonly directory: string
}

/**
 * Carries out whatever takes longer than an answer. Each job is a row: it is resumed after a restart, tried again
 * where it failed, cancelled, and shown, in one way.
 */
export function createJobs({ database, live, log, directory }: Parts) {
  const works = new Map<JobKind, JobWork>()
  const running = new Map<number, Running>()
  let isStopping = false
  mkdirSync(directory, { recursive: true })

  const fileOf = (id: number) => join(directory, String(id))
  const find = (id: number): Promise<JobRow> => database.read.findOneByOrFail(tables.jobs, { id })
  const change = async (id: number, set: Partial<JobRow>): Promise<void> => {
    // TypeORM wants to know the parts of a value it only writes as JSON.
    const written = { ...set, touchedAt: Date.now() } as never
    await database.writeAside((manager) => manager.update(tables.jobs, { id }, written))
  }
  const tell = (workspaceId: number, id: number) => {
    live.tell(workspaceId, { type: 'job', id })
  }

  async function add(given: NewJob, state: 'draft' | 'waiting'): Promise<JobRow> {
    const now = Date.now()
    const row = {
      ...given,
      state,
      done: 0,
      total: 0,
      sentence: '',
      attempts: 0,
      nextAt: state === 'waiting' ? now : null,
      createdAt: now,
      touchedAt: now,
      endedAt: null,
      fileName: null,
      fileType: null,
      fileBytes: null,
    }
    const id = await database.writeAside(async (manager) =>
      insertedId(await manager.insert(tables.jobs, row as never)),
    )
    if (state === 'waiting') wake(given.workspaceId, id)
    return { ...row, id }
  }

  function wake(workspaceId: number, id: number): void {
    tell(workspaceId, id)
    void look()
  }

  let looking: Promise<void> | null = null
  /** Begins what is due, the oldest first, as far as there is a place for it. */
  function look(): Promise<void> {
    looking ??= beginDue()
      // What fails one time, such as a full disk, is tried again at the next look.
      .catch(() => undefined)
      .finally(() => {
        looking = null
      })
    return looking
  }
  async function beginDue(): Promise<void> {
    const due = await database.read.find(tables.jobs, {
      where: { state: 'waiting', nextAt: LessThanOrEqual(Date.now()) },
      order: { id: 'asc' },
    })
    for (const job of due) {
      const work = works.get(job.kind)
      const busy = [...running.values()].filter(({ kind }) => kind === job.kind).length
      if (isStopping || !work || busy >= work.atOnce || running.has(job.id)) continue
      await change(job.id, { state: 'running', attempts: job.attempts + 1, nextAt: null })
      begin(work, { ...job, state: 'running', attempts: job.attempts + 1 })
    }
  }

  function begin(work: JobWork, job: JobRow): void {
    const stopper = new AbortController()
    const state = { kind: job.kind, stopper, done: 0, total: 0 }
    // It must be among those that run before it can end.
    const ended = Promise.resolve().then(() => carryOut(work, job, stopper.signal))
    running.set(job.id, Object.assign(state, { ended }))
    tell(job.workspaceId, job.id)
  }

  async function carryOut(work: JobWork, job: JobRow, signal: AbortSignal): Promise<void> {
    let isSettled = false
    const context: JobContext = {
      signal,
      file: fileOf(job.id),
      progress(done, total) {
        if (signal.aborted) throw new JobCancelled('It was cancelled; nothing of it was kept.')
        Object.assign(running.get(job.id) ?? {}, { done, total })
      },
      async settle(manager, sentence) {
        await manager.update(tables.jobs, { id: job.id }, ended(job.id, 'done', sentence) as never)
        isSettled = true
      },
    }
    try {
      const { sentence, file } = await work.run(job, context)
      const bytes = file && (await stat(context.file)).size
      const kept = { fileName: file?.name ?? null, fileType: file?.type ?? null, fileBytes: bytes ?? null }
      if (!isSettled) await change(job.id, { ...ended(job.id, 'done', sentence), ...kept })
    } catch (error) {
      // A stopping office leaves it as it is, to be begun anew by the next one.
      if (!isSettled && !isStopping) await change(job.id, outcomeOf(error, work, job))
    } finally {
      running.delete(job.id)
      tell(job.workspaceId, job.id)
      if (!isStopping) void look()
    }
  }

  function ended(id: number, state: 'done' | 'failed' | 'cancelled', sentence: string): Partial<JobRow> {
    const { done = 0, total = 0 } = running.get(id) ?? {}
    return {
      state,
      sentence,
      done: state === 'done' ? total : done,
      total,
      nextAt: null,
      endedAt: Date.now(),
    }
  }

  function outcomeOf(error: unknown, work: JobWork, job: JobRow): Partial<JobRow> {
    if (error instanceof JobCancelled) return ended(job.id, 'cancelled', error.message)
    if (error instanceof Refusal) return ended(job.id, 'failed', error.message)
    log.error({ error, job: job.id }, `a job failed: ${job.kind}`)
    if (job.attempts >= work.tries) return ended(job.id, 'failed', `${WENT_WRONG} Try again.`)
    const nextAt = Date.now() + pauseAfter(job.attempts)
    return { state: 'waiting', nextAt, sentence: `${WENT_WRONG} It is tried again.` }
  }

  /** What ran when the office ended waits to be begun anew. */
  async function resume(): Promise<void> {
    const interrupted = await database.read.findBy(tables.jobs, { state: 'running' })
    for (const job of interrupted) {
      const isHopeless = job.attempts >= (works.get(job.kind)?.tries ?? 1) + INTERRUPTED_MAX
      await change(
        job.id,
        isHopeless
          ? ended(job.id, 'failed', 'The server stopped in the middle of it, again and again. Try again.')
          : { state: 'waiting', nextAt: Date.now() },
      )
    }
    await look()
  }

  /** Forgets what ended long ago, drafts that nobody began, and files that were kept for long enough. */
  async function tidy(): Promise<void> {
    const now = Date.now()
    await database.writeAside(async (manager) => {
      await manager.delete(tables.jobs, { endedAt: LessThan(now - ENDED_KEPT_MS) })
      await manager.delete(tables.jobs, { state: 'draft', touchedAt: LessThan(now - DAY_MS) })
      await manager.update(
        tables.jobs,
        { fileName: Not(IsNull()), endedAt: LessThan(now - DAY_MS) },
        { fileName: null, fileType: null, fileBytes: null },
      )
    })
    const ids = readdirSync(directory).map(Number)
    const wanted = await database.read.find(tables.jobs, {
      select: { id: true },
      where: [
        { id: In(ids), endedAt: IsNull() },
        { id: In(ids), endedAt: MoreThan(now - DAY_MS) },
      ],
    })
    const kept = new Set(wanted.map(({ id }) => id))
    for (const id of ids) if (!kept.has(id)) await rm(fileOf(id), { force: true })
  }

  const timers = [
    setInterval(() => void look(), LOOK_MS),
    setInterval(() => {
      tidy().catch(() => undefined)
    }, TIDY_MS),
  ]
  for (const timer of timers) timer.unref()

  return {
    fileOf,
    find,
    /** Says how a kind of job is carried out; to be called for each before `start`. */
    define(work: JobWork): void {
      works.set(work.kind, work)
    },
    async start(): Promise<void> {
      await tidy().catch(() => undefined)
      await resume()
    },
    /** Has something carried out, as soon as there is a place for it. */
    add: (given: NewJob): Promise<JobRow> => add(given, 'waiting'),
    /** Keeps something that somebody may have carried out later. */
    draft: (given: NewJob): Promise<JobRow> => add(given, 'draft'),
    /** Forgets a draft. */
    async discard({ id }: JobRow): Promise<void> {
      await database.writeAside((manager) => manager.delete(tables.jobs, { id, state: 'draft' }))
      await rm(fileOf(id), { force: true })
    },
    /** Changes what a draft, or a job that has ended, would do; it is a draft then. */
    async redraft(id: number, payload: unknown): Promise<void> {
      await change(id, { payload, state: 'draft', sentence: '', done: 0, total: 0, endedAt: null })
    },
    /** Has a draft, or what failed, carried out now. */
    async begin(
      { id, workspaceId }: JobRow,
      set: Partial<Pick<JobRow, 'payload' | 'total'>> = {},
    ): Promise<void> {
      await change(id, {
        ...set,
        state: 'waiting',
        nextAt: Date.now(),
        attempts: 0,
        sentence: '',
        endedAt: null,
      })
      wake(workspaceId, id)
    },
    /** Stops a job that runs, once it comes to look; one that waits, at once. */
    async cancel(job: JobRow): Promise<void> {
      const under = running.get(job.id)
      under?.stopper.abort()
      if (!under && isActive(job)) {
        await change(job.id, ended(job.id, 'cancelled', 'It was cancelled before it began.'))
        tell(job.workspaceId, job.id)
      }
    },
    /** How far a job is by now. */
    progressOf: ({ id, done, total }: JobRow): { done: number; total: number } => {
      const under = running.get(id)
      return under && under.total > 0 ? { done: under.done, total: under.total } : { done, total }
    },
    /** The jobs of a kind that have not ended. */
    active: (workspaceId: number, kind: JobKind): Promise<JobRow[]> =>
      database.read.findBy(tables.jobs, { workspaceId, kind, state: In(['waiting', 'running']) }),
    async stop(): Promise<void> {
      isStopping = true
      for (const timer of timers) clearInterval(timer)
      await looking
      const under = [...running.values()]
      for (const { stopper } of under) stopper.abort()
      await Promise.all(under.map(({ ended: end }) => end))
    },
  }
}
export type Jobs = ReturnType<typeof createJobs>
