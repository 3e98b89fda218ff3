import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { pipeline } from 'node:stream/promises'
import { In, Not, type FindOptionsWhere } from 'typeorm'
import { canCancel, isActive, jobsApi, type Job } from '@flimbo/core/jobs'
import { attach, bounds, missing, mount, Refusal, type Mounts } from '../api/index.ts'
import { peopleNames, tables, type Database, type JobRow } from '../database/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import type { Jobs } from './runner.ts'

/** Jobs as whoever asks sees them. */
export function jobViewer({ read }: Pick<Database, 'read'>, jobs: Pick<Jobs, 'progressOf'>) {
  async function all(rows: readonly JobRow[], { person }: Pick<SignedIn, 'person'>): Promise<Job[]> {
    const ids = rows.flatMap(({ personId }) => (personId === null ? [] : [personId]))
    const nameOf = await peopleNames(read, ids)
    return rows.map((row) => ({
      id: row.id,
      kind: row.kind,
      title: row.title,
      state: row.state,
      campaignId: row.campaignId,
      by: row.personId === null ? null : nameOf(row.personId),
      own: row.personId === person.id,
      ...jobs.progressOf(row),
      sentence: row.sentence,
      attempts: row.attempts,
      nextAt: row.nextAt,
      createdAt: row.createdAt,
      endedAt: row.endedAt,
      file: row.fileName === null ? null : { name: row.fileName, bytes: row.fileBytes ?? 0 },
    }))
  }
  async function one(row: JobRow, who: Pick<SignedIn, 'person'>): Promise<Job> {
    const [job] = await all([row], who)
    if (!job) throw missing('job')
    return job
  }
  return { all, one }
}
export type JobViewer = ReturnType<typeof jobViewer>

interface Parts {
  readonly database: Database
  readonly jobs: Jobs
  readonly jobView: JobViewer
}

/** The endpoints of jobs, as `core`’s contract describes them. */
export function jobsEndpoints(mounts: Mounts, { database, jobs, jobView }: Parts): void {
  const { read } = database

  const one = async (id: number, who: SignedIn): Promise<Job> => jobView.one(await jobs.find(id), who)

  mount(mounts, jobsApi.list, async ({ query, who }) => {
    const { page, pageSize, order, campaignId, shown } = query
    const where: FindOptionsWhere<JobRow> = {
      workspaceId: who.workspace.id,
      state: shown === 'active' ? In(['waiting', 'running']) : Not('draft' as const),
      ...(campaignId === undefined ? {} : { campaignId }),
      ...(shown === 'own' ? { personId: who.person.id } : {}),
    }
    const [rows, total] = await read.findAndCount(tables.jobs, {
      where,
      order: { id: order },
      ...bounds(query),
    })
    return { rows: await jobView.all(rows, who), total, page, pageSize }
  })

  mount(mounts, jobsApi.get, ({ params: { id }, who }) => one(id, who))

  mount(mounts, jobsApi.cancel, async ({ params: { id }, who }) => {
    const job = await jobs.find(id)
    if (!isActive(job)) throw new Refusal('taken', 'This has ended already: there is nothing to cancel.')
    if (!canCancel(job))
      throw new Refusal('taken', 'Flimbo needs this for its figures: it goes on until it is done.')
    await jobs.cancel(job)
    return one(id, who)
  })

  mount(mounts, jobsApi.retry, async ({ params: { id }, who }) => {
    const job = await jobs.find(id)
    if (job.state !== 'failed' && job.state !== 'waiting')
      throw new Refusal('taken', 'Only what failed, or waits for its next attempt, is tried again.')
    await jobs.begin(job)
    return one(id, who)
  })

  mount(mounts, jobsApi.file, async ({ params: { id }, response }) => {
    const { fileName, fileType } = await jobs.find(id)
    const file = jobs.fileOf(id)
    const there = fileName === null ? null : await stat(file).catch(() => null)
    if (fileName === null || !there)
      throw new Refusal('missing', 'This file is not kept any more. Have it made again.')
    attach(response, fileType ?? 'application/octet-stream', fileName)
    response.setHeader('Content-Length', there.size)
    // Whoever leaves in the middle is no fault of ours.
    await pipeline(createReadStream(file), response).catch(() => undefined)
  })
}
