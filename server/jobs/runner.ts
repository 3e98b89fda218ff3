import { mkdirSync } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { In, LessThanOrEqual } from 'typeorm'
import type { Logger } from 'pino'
import { pauseAfter, type JobKind } from '@flimbo/core/jobs'
import { forAll, Refusal } from '../api/index.ts'
import { insertedId, tables, type Database, type JobRow } from '../database/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { tidyJobs } from './tidy.ts'
import { JobCancelled, type JobContext, type JobWork, type NewJob } from './work.ts'

/** How often it is looked whether something is to be begun. */
const LOOK_MS = 1000
const TIDY_MS = 60 * 60_000
/** A job that was begun so often without ever coming to an end takes the office with it: it is not begun again. */
const INTERRUPTED_MAX = 5
const WENT_WRONG = 'Something went wrong on the server, and nothing of it was kept.'

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
    // Whoever had it begun does not wait for it: their leaving stops nothing.
    looking ??= forAll(beginDue)
      // What fails one time, such as a full disk, is tried again at the next look.
      .catch(() => undefined)
      .finally(() => {
        looking = null
      })
    return looking
  }
  async function beginDue(): Promise<void> {
    const due = await database.read.find(tables.jobs, {
      select: { id: true, kind: true },
      where: { state: 'waiting', nextAt: LessThanOrEqual(Date.now()) },
      order: { id: 'asc' },
    })
    for (const { id, kind } of due) {
      const work = works.get(kind)
      const busy = [...running.values()].filter((each) => each.kind === kind).length
      if (isStopping || !work || busy >= work.atOnce || running.has(id)) continue
      begin(work, id)
    }
  }

  function begin(work: JobWork, id: number): void {
    const stopper = new AbortController()
    const state = { kind: work.kind, stopper, done: 0, total: 0 }
    // It must be among those that run before it can end, and before anybody can cancel it as one that runs.
    const end = Promise.resolve().then(() => carryOut(work, id, stopper.signal))
    running.set(id, Object.assign(state, { ended: end }))
  }

  async function carryOut(work: JobWork, id: number, signal: AbortSignal): Promise<void> {
    try {
      if (!(await claim(id))) return
      const job = await find(id)
      tell(job.workspaceId, id)
      await attempt(work, job, signal)
      tell(job.workspaceId, id)
    } catch (error) {
      // It waits still, and is begun at one of the next looks.
      log.error({ error, job: id }, `a job could not be begun: ${work.kind}`)
      await pause(LOOK_MS)
    } finally {
      running.delete(id)
      if (!isStopping) void look()
    }
  }

  /** Takes a job that waits; false where somebody cancelled it, or another took it, in the meantime. */
  async function claim(id: number): Promise<boolean> {
    const { affected } = await database.writeAside((manager) =>
      manager.update(
        tables.jobs,
        { id, state: 'waiting' },
        { state: 'running', attempts: () => 'attempts + 1', nextAt: null, touchedAt: Date.now() },
      ),
    )
    return affected === 1
  }

  async function attempt(work: JobWork, job: JobRow, signal: AbortSignal): Promise<void> {
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
      if (!isSettled) await record(job.id, { ...ended(job.id, 'done', sentence), ...kept })
    } catch (error) {
      // A stopping office leaves it as it is, to be begun anew by the next one.
      if (!isSettled && !isStopping) await record(job.id, outcomeOf(error, work, job))
    }
  }

  /** Stores what came of a job. What it did is done: where that cannot be written, as on a full disk, it is tried on. */
  async function record(id: number, set: Partial<JobRow>): Promise<void> {
    for (;;)
      try {
        await change(id, set)
        return
      } catch (error) {
        log.error({ error, job: id }, 'what came of a job could not be stored')
        if (isStopping) return
        await pause(LOOK_MS)
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

  const timers = [
    setInterval(() => void look(), LOOK_MS),
    setInterval(() => {
      tidyJobs(database, directory).catch(() => undefined)
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
      await tidyJobs(database, directory).catch(() => undefined)
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
    async cancel({ id, workspaceId }: JobRow): Promise<void> {
      const set = ended(id, 'cancelled', 'It was cancelled before it began.')
      await database.writeAside((manager) =>
        manager.update(tables.jobs, { id, state: 'waiting' }, { ...set, touchedAt: Date.now() } as never),
      )
      running.get(id)?.stopper.abort()
      tell(workspaceId, id)
    },
    /** Removes files that jobs of a workspace made, of some names; the sentence says why. */
    async dropFiles(workspaceId: number, names: readonly string[], sentence: string): Promise<void> {
      const rows = await database.read.findBy(tables.jobs, { workspaceId, fileName: In([...names]) })
      for (const { id } of rows) {
        await rm(fileOf(id), { force: true })
        await change(id, { fileName: null, fileType: null, fileBytes: null, sentence })
        tell(workspaceId, id)
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
