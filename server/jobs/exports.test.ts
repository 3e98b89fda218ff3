import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout } from 'node:timers/promises'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openDatabase, type Database } from '../database/index.ts'
import { liveHub } from '../scans/index.ts'
import { createJobs, exporter, type Exporter, type Jobs } from './index.ts'

let directory: string
let database: Database
let jobs: Jobs
let free: number
let files: Exporter

beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-exports-'))
  database = await openDatabase(join(directory, 'data.sqlite'))
  jobs = createJobs({
    database,
    live: liveHub(),
    log: { error: () => undefined },
    directory: join(directory, 'jobs'),
  })
  free = 10 ** 12
  files = exporter(jobs, () => free)
})
afterEach(async () => {
  await jobs.stop()
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

const OF = { workspaceId: 1, personId: null, campaignId: null, title: 'Tides' }
const define = (write: Parameters<Exporter['define']>[0]['write']) => {
  files.define({
    what: 'tides.csv',
    type: 'text/csv',
    read: (stored) => stored,
    nameOf: () => Promise.resolve('tides.csv'),
    write,
  })
}
async function over(id: number) {
  for (;;) {
    const job = await jobs.find(id)
    if (job.endedAt !== null) return job
    await setTimeout(5)
  }
}

describe('an export', () => {
  it('writes a file, and has its name, type and size', async () => {
    define((out, order) => {
      out.write(JSON.stringify(order))
      return Promise.resolve()
    })
    await jobs.start()
    const { id } = await files.order('tides.csv', { day: 1 }, OF)
    expect(await over(id)).toMatchObject({
      state: 'done',
      fileName: 'tides.csv',
      fileType: 'text/csv',
      fileBytes: 9,
    })
  })

  it('leaves room on the disk for scans: it is not begun where there is none, and stops where it becomes so', async () => {
    let isStarted = false
    define(async (out, _order, advance) => {
      isStarted = true
      for (;;) {
        out.write('x')
        advance(1, 2)
        free = 0
        await setTimeout(20)
      }
    })
    await jobs.start()
    const stopped = await over((await files.order('tides.csv', {}, OF)).id)
    expect([stopped.state, stopped.fileName]).toEqual(['failed', null])
    expect(stopped.sentence).toContain('what is left is kept for scans')
    expect(existsSync(jobs.fileOf(stopped.id))).toBe(false)
    isStarted = false
    const refused = await over((await files.order('tides.csv', {}, OF)).id)
    expect([refused.state, isStarted]).toEqual(['failed', false])
  })

  it('is refused in a sentence where twenty wait already, but for nobody else', async () => {
    define(() => Promise.resolve())
    for (let n = 0; n < 20; n++) await files.order('tides.csv', { n }, OF)
    await expect(files.order('tides.csv', {}, OF)).rejects.toThrow('20 files are being made already.')
    expect((await files.order('tides.csv', {}, { ...OF, workspaceId: 2 })).state).toBe('waiting')
  })
})
