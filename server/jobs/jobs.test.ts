import { mkdtempSync, rmSync, writeFileSync, existsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout } from 'node:timers/promises'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Refusal } from '../api/index.ts'
import { openDatabase, tables, type Database } from '../database/index.ts'
import { liveHub } from '../scans/index.ts'
import { createJobs, JobCancelled, type Jobs, type JobWork, type NewJob } from './index.ts'

let directory: string
let database: Database
let logged: unknown[]

beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-jobs-'))
  database = await openDatabase(join(directory, 'data.sqlite'))
  logged = []
})
afterEach(async () => {
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

const log = {
  error: (...given: unknown[]) => {
    logged.push(given)
  },
}
/** An office's jobs, of which every export is carried out in one way. */
async function started(run: JobWork['run'], on: Database = database): Promise<Jobs> {
  const jobs = createJobs({ database: on, live: liveHub(), log, directory: join(directory, 'jobs') })
  jobs.define({ kind: 'export', atOnce: 1, tries: 2, run })
  await jobs.start()
  return jobs
}
const ORDER: NewJob = {
  kind: 'export',
  workspaceId: 1,
  personId: null,
  campaignId: null,
  title: 'A file',
  payload: { n: 1 },
}
async function until(jobs: Jobs, id: number, is: (state: string) => boolean) {
  for (;;) {
    const job = await jobs.find(id)
    if (is(job.state)) return job
    await setTimeout(5)
  }
}
const isOver = (state: string) => ['done', 'failed', 'cancelled'].includes(state)
/** Work that goes on until it is asked to stop. */
const endless: JobWork['run'] = async (_job, { progress }) => {
  for (let n = 0; ; n++) {
    progress(n, 1000)
    await setTimeout(2)
  }
}

describe('a job', () => {
  it('is carried out with what it was given, says how far it is, and what came of it', async () => {
    const seen: unknown[] = []
    const jobs = await started(async ({ payload }, { progress }) => {
      seen.push(payload)
      progress(3, 10)
      await setTimeout(30)
      return { sentence: 'It is there.' }
    })
    const { id } = await jobs.add(ORDER)
    const running = await until(jobs, id, (state) => state === 'running')
    while (jobs.progressOf(running).total === 0) await setTimeout(1)
    expect(jobs.progressOf(running)).toEqual({ done: 3, total: 10 })
    expect(await until(jobs, id, isOver)).toMatchObject({
      state: 'done',
      done: 10,
      total: 10,
      sentence: 'It is there.',
    })
    expect(seen).toEqual([{ n: 1 }])
    await jobs.stop()
  })

  it('waits for its turn, and is stopped wherever it is', async () => {
    const jobs = await started(endless)
    const first = await jobs.add(ORDER)
    const second = await jobs.add(ORDER)
    await until(jobs, first.id, (state) => state === 'running')
    expect((await jobs.find(second.id)).state).toBe('waiting')
    await jobs.cancel(await jobs.find(second.id))
    await jobs.cancel(await jobs.find(first.id))
    expect((await until(jobs, first.id, isOver)).state).toBe('cancelled')
    expect(await jobs.find(second.id)).toMatchObject({
      state: 'cancelled',
      sentence: 'It was cancelled before it began.',
    })
    await jobs.stop()
  })

  it('that is cancelled in the moment it is ordered never goes on', async () => {
    let passed = 0
    const jobs = await started(async (_job, { progress }) => {
      await setTimeout(5)
      progress(1, 2)
      passed++
      return { sentence: '' }
    })
    const orders = await Promise.all(Array.from({ length: 5 }, () => jobs.add(ORDER)))
    await Promise.all(orders.map((order) => jobs.cancel(order)))
    for (const { id } of orders) expect((await until(jobs, id, isOver)).state).toBe('cancelled')
    expect(passed).toBe(0)
    await jobs.stop()
  })

  it('that is over is done once, and stored as such as soon as the disk takes it', async () => {
    let runs = 0
    let isFull = false
    const jobs = await started(
      () => {
        runs++
        isFull = true
        return Promise.resolve({ sentence: 'Made once.' })
      },
      {
        ...database,
        writeAside: (act) =>
          isFull ? Promise.reject(new Error('database or disk is full')) : database.writeAside(act),
      },
    )
    const { id } = await jobs.add(ORDER)
    while (logged.length === 0) await setTimeout(5)
    expect((await jobs.find(id)).state).toBe('running')
    isFull = false
    expect(await until(jobs, id, isOver)).toMatchObject({ state: 'done', sentence: 'Made once.' })
    expect(runs).toBe(1)
    await jobs.stop()
  })

  it('is begun anew by the next office where one stopped in the middle of it', async () => {
    const before = await started(endless)
    const { id } = await before.add(ORDER)
    await until(before, id, (state) => state === 'running')
    await before.stop()
    expect((await before.find(id)).state).toBe('running')
    const after = await started(() => Promise.resolve({ sentence: 'Done at last.' }))
    expect(await until(after, id, isOver)).toMatchObject({
      state: 'done',
      attempts: 2,
      sentence: 'Done at last.',
    })
    await after.stop()
  })

  it('that takes the office with it each time is given up', async () => {
    const jobs = await started(() => Promise.resolve({ sentence: '' }))
    const { id } = await jobs.draft(ORDER)
    await database.write((manager) => manager.update(tables.jobs, { id }, { state: 'running', attempts: 7 }))
    await jobs.stop()
    const next = await started(endless)
    expect(await next.find(id)).toMatchObject({
      state: 'failed',
      sentence: expect.stringContaining('again and again') as string,
    })
    await next.stop()
  })

  it('is tried again after a pause where it failed, and fails for good after its last try', async () => {
    let tries = 0
    const jobs = await started(() => {
      tries++
      return Promise.reject(new Error('no connection'))
    })
    const { id } = await jobs.add(ORDER)
    const waiting = await until(jobs, id, (state) => state === 'waiting' && tries > 0)
    expect(waiting.nextAt).toBeGreaterThan(Date.now() + 3000)
    await database.write((manager) => manager.update(tables.jobs, { id }, { nextAt: Date.now() }))
    expect((await until(jobs, id, isOver)).state).toBe('failed')
    expect([tries, logged.length]).toEqual([2, 2])
    await jobs.stop()
  })

  it('that is refused fails at once, in the words of the refusal, and is tried again when somebody says so', async () => {
    let isRefused = true
    const jobs = await started(() =>
      isRefused
        ? Promise.reject(new Refusal('invalid', 'There is nothing to make.'))
        : Promise.resolve({ sentence: 'Made.' }),
    )
    const { id } = await jobs.add(ORDER)
    const failed = await until(jobs, id, isOver)
    expect([failed.state, failed.sentence, logged]).toEqual(['failed', 'There is nothing to make.', []])
    isRefused = false
    await jobs.begin(failed)
    expect((await until(jobs, id, (state) => state === 'done')).sentence).toBe('Made.')
    await jobs.stop()
  })

  it('is done in the moment in which what it did is stored, whatever comes after', async () => {
    const jobs = await started(async (_job, { settle }) => {
      await database.write((manager) => settle(manager, 'Stored.'))
      throw new JobCancelled('too late')
    })
    const { id } = await jobs.add(ORDER)
    expect(await until(jobs, id, isOver)).toMatchObject({ state: 'done', sentence: 'Stored.' })
    await jobs.stop()
  })

  it('keeps the file it made for a day, and nothing that belongs to no job', async () => {
    const jobs = await started((_job, { file }) => {
      writeFileSync(file, 'a,b\r\n')
      return Promise.resolve({ sentence: 'Ready.', file: { name: 'a.csv', type: 'text/csv' } })
    })
    const { id } = await jobs.add(ORDER)
    expect(await until(jobs, id, isOver)).toMatchObject({ fileName: 'a.csv', fileBytes: 5 })
    const stray = jobs.fileOf(4711)
    writeFileSync(stray, 'x')
    await jobs.stop()
    const next = await started(endless)
    expect([existsSync(stray), existsSync(next.fileOf(id))]).toEqual([false, true])
    await next.stop()
    await database.write((manager) =>
      manager.update(tables.jobs, { id }, { endedAt: Date.now() - 25 * 3_600_000 }),
    )
    const later = await started(endless)
    expect([existsSync(later.fileOf(id)), (await later.find(id)).fileName]).toEqual([false, null])
    await later.stop()
  })
})
