import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PLAIN_REPORT_LOOK, type MadeReport } from '@flimbo/core/reports'
import { Refusal } from '../api/index.ts'
import type { JobRow } from '../database/index.ts'
import type { JobContext } from '../jobs/index.ts'
import { mailingWork } from './mailing.ts'

let directory: string
beforeAll(() => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-mailing-'))
})
afterAll(() => {
  rmSync(directory, { recursive: true, force: true })
})

const AT = Date.parse('2026-07-01T05:00:00Z')
const MADE: MadeReport = {
  ...{ name: 'July', owner: 'Saltmarsh Line', campaign: '', zone: 'UTC', madeAt: AT, currency: 'EUR' },
  ...{ look: PLAIN_REPORT_LOOK, sections: [] },
}
/** The work of one mailing, with what came of it: what was written, and how often a file was made. */
function working(
  mailing: { sentAt?: number; to?: string[] },
  make: () => Promise<MadeReport>,
  file: () => Promise<Uint8Array> = () => Promise.resolve(new Uint8Array(10)),
) {
  const settings = { to: mailing.to ?? ['bo@gull.example'], files: ['pdf'], message: '' }
  const row = { id: 4, workspaceId: 1, reportId: 7, personId: 2, sentAt: mailing.sentAt ?? null, settings }
  const report = { id: 7, name: 'July', campaignId: null, content: { name: 'July' } }
  const happened: string[] = []
  const work = mailingWork({
    // It is asked for the mailing first, and then for its report.
    database: {
      read: {
        findOneBy: (_table: unknown, { id }: { id: number }) => Promise.resolve(id === 4 ? row : report),
        findOneByOrFail: () => Promise.resolve({ id: 1, zone: 'UTC' }),
      },
      write: () => {
        happened.push('write')
        return Promise.resolve()
      },
    },
    live: { tell: () => undefined },
    makeReport: make,
    reportDrawing: { file },
    directory,
  } as never)
  const context = { signal: new AbortController().signal, progress: () => undefined } as unknown as JobContext
  const run = (attempts = 1) =>
    work.run(
      { id: 9, attempts, payload: { mailingId: 4, at: AT, isExtra: false } } as unknown as JobRow,
      context,
    )
  return { run, happened }
}

describe('the work of mailing a report', () => {
  it('is done once for each time it is due, whatever stopped in between', async () => {
    const { run, happened } = working({ sentAt: AT }, () => Promise.resolve(MADE))
    expect((await run()).sentence).toBe('It was mailed already.')
    expect(happened).toEqual([])
  })

  it('mails nobody where all its readers ended it', async () => {
    const { run, happened } = working({ to: [] }, () => Promise.resolve(MADE))
    expect([(await run()).sentence, happened]).toEqual(['Nobody is left to mail it to.', []])
  })

  it('says why to whoever set it up where the report cannot be made, at once', async () => {
    const { run, happened } = working({}, () => Promise.reject(new Refusal('missing', 'It was deleted.')))
    await expect(run()).rejects.toThrow(Refusal)
    expect(happened).toEqual(['write'])
  })

  it('is tried again where it was only busy, and tells of that after the last attempt alone', async () => {
    const { run, happened } = working({}, () => Promise.reject(new Refusal('unavailable', 'Busy.')))
    // A refusal would be final.
    await expect(run(1)).rejects.not.toThrow(Refusal)
    expect(happened).toEqual([])
    await expect(run(3)).rejects.toThrow('Busy.')
    expect(happened).toEqual(['write'])
  })

  it('sends no files that are larger than mail servers take', async () => {
    const { run, happened } = working(
      {},
      () => Promise.resolve(MADE),
      () => Promise.resolve(new Uint8Array(16 << 20)),
    )
    await expect(run()).rejects.toThrow('larger than mail servers take')
    expect(happened).toEqual(['write'])
  })

  it('mails what was made, once to all its readers', async () => {
    const { run, happened } = working({ to: ['bo@gull.example', 'cy@gull.example'] }, () =>
      Promise.resolve(MADE),
    )
    expect((await run()).sentence).toBe('It was mailed to 2 addresses.')
    expect(happened).toEqual(['write'])
  })
})
