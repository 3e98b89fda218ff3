import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import { dirname } from 'node:path'
import type { Writable } from 'node:stream'
import { Refusal } from '../api/index.ts'
import type { JobRow } from '../database/index.ts'
import { freeBytesOf, roomKeeper } from '../files/index.ts'
import type { Jobs } from './runner.ts'
import { JobCancelled, type JobResult, type NewJob } from './work.ts'

/** Says how far an export is. @throws JobCancelled where it was asked to stop */
export type Advance = (done: number, total: number) => void

/** One kind of file that can be made by a job. */
export interface ExportKind<Order> {
  /** What it is called in a job's payload, such as `scans.csv`. */
  readonly what: string
  /** Its media type. */
  readonly type: string
  /** Reads an order as it was stored. @throws Error where it was stored by another version and is not understood */
  readonly read: (stored: unknown) => Order
  readonly nameOf: (order: Order) => Promise<string>
  /** Writes all of the file; its end is not its own to write. */
  readonly write: (out: Writable, order: Order, advance: Advance) => Promise<void>
}

type Made = Required<JobResult>['file']

/** So many files of a workspace are being made, or wait for that, at one time. */
const ACTIVE_MAX = 20
/** Has files made by jobs, to be fetched when they are ready. */
export function exporter(jobs: Jobs, freeBytes = freeBytesOf) {
  const makers = new Map<string, (stored: unknown, out: Writable, advance: Advance) => Promise<Made>>()

  /** Writes a file and waits until all of it is there. */
  async function intoFile<T>(file: string, write: (out: Writable) => Promise<T>): Promise<T> {
    const out = createWriteStream(file)
    const failed = once(out, 'error').then(([error]) => Promise.reject(error as Error))
    failed.catch(() => undefined)
    try {
      const result = await Promise.race([write(out), failed])
      out.end()
      await Promise.race([once(out, 'close'), failed])
      return result
    } catch (error) {
      out.destroy()
      // Half a file is of use to nobody, and takes room.
      await rm(file, { force: true })
      throw error
    }
  }

  jobs.define({
    kind: 'export',
    atOnce: 2,
    tries: 3,
    async run({ payload }: JobRow, { file, progress }) {
      const { what, order } = payload as { what: string; order: unknown }
      const make = makers.get(what)
      if (!make) throw new Error(`Nobody knows how to make ${what}`)
      const keepRoom = roomKeeper(dirname(file), freeBytes)
      const advance: Advance = (done, total) => {
        keepRoom()
        try {
          progress(done, total)
        } catch {
          throw new JobCancelled('It was cancelled; no file was made.')
        }
      }
      keepRoom()
      return {
        sentence: 'The file is ready.',
        file: await intoFile(file, (out) => make(order, out, advance)),
      }
    },
  })

  return {
    define<Order>({ what, type, read, nameOf, write }: ExportKind<Order>): void {
      makers.set(what, async (stored, out, advance) => {
        const order = read(stored)
        await write(out, order, advance)
        return { name: await nameOf(order), type }
      })
    },
    /** Has a file made. @throws Refusal where very many wait already */
    async order(what: string, order: unknown, of: Omit<NewJob, 'kind' | 'payload'>): Promise<JobRow> {
      if ((await jobs.active(of.workspaceId, 'export')).length >= ACTIVE_MAX)
        throw new Refusal(
          'taken',
          `${String(ACTIVE_MAX)} files are being made already. Wait for one of them, or cancel one under Jobs.`,
        )
      return jobs.add({ ...of, kind: 'export', payload: { what, order } })
    },
  }
}
export type Exporter = ReturnType<typeof exporter>
