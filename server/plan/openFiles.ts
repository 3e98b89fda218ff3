import { readFile } from 'node:fs/promises'
import { LRUCache } from 'lru-cache'
import { detectMapping, fileColumns, type Encoding, type PlanImport } from '@flimbo/core/plan'
import { missing, Refusal } from '../api/index.ts'
import { tables, type CampaignRow, type JobRow } from '../database/index.ts'
import type { Jobs } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import {
  columnsOf,
  headingsOf,
  importOrder,
  type ImportOrder,
  type Judgement,
  type ReadTable,
} from './importFile.ts'
import { judgeFile } from './judge.ts'
import { readMapping } from './mapping.ts'
import type { SheetReader } from './sheets.ts'
import type { WorldParts } from './world.ts'

export interface FileParts extends WorldParts {
  readonly sheets: SheetReader
  readonly jobs: Jobs
  readonly live: LiveHub
}

/** How a file is read; what is not given is found out. */
export interface Reading {
  readonly encoding?: Encoding | undefined
  readonly delimiter?: string | undefined
  readonly sheet?: string | undefined
}

/** A file as it was read and judged; it can be read and judged anew at any time. */
export interface OpenFile {
  readonly table: ReadTable
  readonly order: ImportOrder
  readonly judgement: Judgement
}

/** So many files that were read are held in memory; the others are read again when they are asked for. */
const HELD_MAX = 6
const STAGES = {
  draft: 'ready',
  waiting: 'running',
  running: 'running',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
} as const

/** Files that wait to be imported, as they were read and judged last; a few in memory, the others read again. */
export function openFiles(parts: FileParts) {
  const { database, tagging, sheets, jobs } = parts
  const held = new LRUCache<number, OpenFile>({ max: HELD_MAX })

  const campaignOf = ({ campaignId }: JobRow): Promise<CampaignRow> =>
    database.read.findOneByOrFail(tables.campaigns, { id: campaignId ?? 0 })

  async function tableOf(bytes: Uint8Array, wishes: Reading): Promise<ReadTable> {
    const read = await sheets.read({ bytes, ...wishes })
    if (!read.ok) throw new Refusal('invalid', read.sentence)
    if (read.rows.length === 0)
      throw new Refusal(
        'invalid',
        'There is nothing in this file. Hand in one with a heading and at least one line.',
      )
    return read
  }

  async function find(id: number): Promise<JobRow> {
    const job = await jobs.find(id)
    if (job.kind !== 'import') throw missing('import')
    return job
  }

  async function bytesOf({ id }: JobRow): Promise<Uint8Array> {
    try {
      return await readFile(jobs.fileOf(id))
    } catch {
      throw new Refusal('missing', 'This file is not kept any more. Hand it in again.')
    }
  }

  /** The file of a job as it was read and judged last, or as it is now. */
  async function open(job: JobRow): Promise<OpenFile> {
    const there = held.get(job.id)
    if (there) return there
    const order = importOrder.parse(job.payload)
    const table = await tableOf(await bytesOf(job), order.reading)
    return hold(job.id, {
      table,
      order,
      judgement: await judgeFile(parts, await campaignOf(job), table, order),
    })
  }

  function hold(id: number, file: OpenFile): OpenFile {
    held.set(id, file)
    return file
  }

  async function mappingOf(workspaceId: number, table: ReadTable, order: Pick<ImportOrder, 'headings'>) {
    const columns = fileColumns((await tagging.rulesOf(workspaceId)).parameters)
    return detectMapping(headingsOf(table, order), columns, await readMapping(database.read, workspaceId))
  }

  async function view(job: JobRow): Promise<PlanImport> {
    const { table, order, judgement } = await open(job)
    return {
      id: job.id,
      campaignId: job.campaignId ?? 0,
      fileName: order.fileName,
      kind: table.kind,
      encoding: table.encoding,
      delimiter: table.delimiter,
      sheets: table.sheets,
      sheet: table.sheet,
      headings: order.headings,
      empty: order.empty,
      fix: order.fix,
      columns: columnsOf(table, order),
      stage: STAGES[job.state],
      ...jobs.progressOf(job),
      sentence: job.sentence,
      counts: judgement.counts,
    }
  }

  return {
    find,
    open,
    hold,
    /** Nothing of it is needed in memory any more. */
    release: (id: number) => held.delete(id),
    view,
    campaignOf,
    read: tableOf,
    bytesOf,
    mappingOf,
    judge: async (job: JobRow, table: ReadTable, order: ImportOrder) =>
      judgeFile(parts, await campaignOf(job), table, order),
  }
}
export type OpenFiles = ReturnType<typeof openFiles>
