import { readFile, writeFile } from 'node:fs/promises'
import { LRUCache } from 'lru-cache'
import {
  detectMapping,
  fileColumns,
  headingForm,
  looksLikeHeadings,
  type Encoding,
  type LineVerdict,
  type PlanImport,
} from '@flimbo/core/plan'
import { missing, Refusal } from '../api/index.ts'
import { houseOf, slugLengthOf } from '../codes/index.ts'
import { tables, type CampaignRow, type JobRow } from '../database/index.ts'
import { domainFor } from '../domains/index.ts'
import { JobCancelled, type JobContext, type JobResult, type Jobs } from '../jobs/index.ts'
import { forgetCodes, type Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import { carryOut } from './carryOut.ts'
import {
  columnsOf,
  headingsOf,
  importOrder,
  type ImportOrder,
  type Judgement,
  type ReadTable,
} from './importFile.ts'
import { judgeFile } from './judge.ts'
import { readMapping, readReading, rememberMapping, rememberReading } from './mapping.ts'
import type { SheetReader } from './sheets.ts'
import type { WorldParts } from './world.ts'

export interface ImportParts extends WorldParts {
  readonly doors: Doors
  readonly live: LiveHub
  readonly sheets: SheetReader
  readonly jobs: Jobs
}

export interface Adjustment {
  readonly encoding?: Encoding | undefined
  readonly delimiter?: string | undefined
  readonly sheet?: string | undefined
  readonly headings?: boolean | undefined
  readonly empty?: 'leave' | 'clear' | undefined
  readonly fix?: boolean | undefined
  readonly mapping?: readonly (string | null)[] | undefined
}

/** A file as it was read and judged; it can be read and judged anew at any time. */
interface Opened {
  readonly table: ReadTable
  readonly order: ImportOrder
  readonly judgement: Judgement
}

/** So many files that were read are held in memory; the others are read again when they are asked for. */
const HELD_MAX = 6
/** So many files of a workspace wait to be imported; the oldest makes room. */
const DRAFTS_MAX = 20
const STAGES = {
  draft: 'ready',
  waiting: 'running',
  running: 'running',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
} as const

/** Files on their way into a plan: each is a job, a draft until somebody has it carried out. */
export function planImports(parts: ImportParts) {
  const { database, doors, live, tagging, sheets, jobs } = parts
  const held = new LRUCache<number, Opened>({ max: HELD_MAX })

  const campaignOf = ({ campaignId }: JobRow): Promise<CampaignRow> =>
    database.read.findOneByOrFail(tables.campaigns, { id: campaignId ?? 0 })

  async function tableOf(
    bytes: Uint8Array,
    wishes: Pick<Adjustment, 'encoding' | 'delimiter' | 'sheet'>,
  ): Promise<ReadTable> {
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
  async function opened(job: JobRow): Promise<Opened> {
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
  function hold(id: number, file: Opened): Opened {
    held.set(id, file)
    return file
  }

  async function mappingOf(workspaceId: number, table: ReadTable, order: Pick<ImportOrder, 'headings'>) {
    const columns = fileColumns((await tagging.rulesOf(workspaceId)).parameters)
    return detectMapping(headingsOf(table, order), columns, await readMapping(database.read, workspaceId))
  }

  async function view(job: JobRow): Promise<PlanImport> {
    const { table, order, judgement } = await opened(job)
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

  /** Remembers for the next file what headings stood for, and how it was read. */
  async function remember(workspaceId: number, table: ReadTable, order: ImportOrder): Promise<void> {
    const decided = headingsOf(table, order).flatMap((heading, i) =>
      heading.trim() === '' ? [] : [[headingForm(heading), order.mapping[i] ?? null] as const],
    )
    // Two imports may end at once; that only one of them is remembered does no harm.
    await rememberMapping(database, workspaceId, Object.fromEntries(decided)).catch(() => undefined)
    if (table.kind === 'text')
      await rememberReading(database, workspaceId, order.detected, table).catch(() => undefined)
  }

  async function run(job: JobRow, { progress, settle }: JobContext): Promise<JobResult> {
    const { workspaceId } = job
    const campaign = await campaignOf(job)
    const file = await opened(job)
    const { table } = file
    const order = importOrder.parse(job.payload)
    const judgement =
      live.edition(workspaceId) === file.judgement.edition
        ? file.judgement
        : await judgeFile(parts, campaign, table, order)
    hold(job.id, { table, order, judgement })
    const { create, change, refuse } = judgement.counts
    if (refuse > 0 && !order.goodOnly)
      throw new Refusal(
        'invalid',
        `${String(refuse)} ${refuse === 1 ? 'line is' : 'lines are'} refused, so nothing was imported. Correct the file, or import the good lines only.`,
      )
    await remember(workspaceId, table, order)
    const house = await houseOf(parts, workspaceId)
    const domainId = await domainFor(database.read, campaign)
    const slugLength = await slugLengthOf(database, workspaceId)
    const sentence = `${String(create)} created, ${String(change)} changed.`
    progress(0, create + change)
    const ids = await database.writeInTurns(
      (manager, turns) =>
        carryOut(manager, {
          lines: judgement.lines,
          campaign,
          domainId,
          house,
          slugLength,
          by: { personId: job.personId ?? 0, at: Date.now() },
          pace: {
            turns,
            done(pieces) {
              progress(pieces, create + change)
            },
          },
        }),
      (manager) => settle(manager, sentence),
    )
    await forgetCodes(database, doors, ids)
    live.tell(workspaceId, { type: 'change', of: 'code', id: ids[0] ?? 0 })
    return { sentence }
  }
  jobs.define({
    kind: 'import',
    atOnce: 1,
    tries: 1,
    async run(job, context) {
      try {
        return await run(job, context)
      } catch (error) {
        if (error instanceof JobCancelled) throw new JobCancelled('Cancelled; nothing was imported.')
        throw error
      }
    },
  })

  /** The oldest drafts of a workspace make room for a new one. */
  async function makeRoom(workspaceId: number): Promise<void> {
    const drafts = await database.read.find(tables.jobs, {
      where: { workspaceId, kind: 'import', state: 'draft' },
      order: { id: 'desc' },
      skip: DRAFTS_MAX - 1,
      take: DRAFTS_MAX,
    })
    for (const draft of drafts) await jobs.discard(draft)
  }

  const ensureIdle = ({ state }: JobRow) => {
    if (state !== 'waiting' && state !== 'running' && state !== 'done') return
    throw new Refusal(
      'taken',
      'This file is being imported or was imported already. Hand it in again to change how it is read.',
    )
  }

  return {
    async begin(
      { person, workspace }: SignedIn,
      campaign: CampaignRow,
      fileName: string,
      bytes: Uint8Array,
    ): Promise<PlanImport> {
      const detected = await tableOf(bytes, {})
      const { encodings, delimiters } = await readReading(database.read, workspace.id)
      // What begins with a byte order mark, or is UTF-8 throughout, is no guess that could be wrong.
      const encoding = detected.encoding === 'windows-1252' ? encodings[detected.encoding] : undefined
      const delimiter = delimiters[detected.delimiter]
      const table =
        detected.kind === 'text' && (encoding !== undefined || delimiter !== undefined)
          ? await tableOf(bytes, { encoding, delimiter })
          : detected
      const columns = fileColumns((await tagging.rulesOf(workspace.id)).parameters)
      const headings = looksLikeHeadings(table.rows[0] ?? [], columns)
      const order: ImportOrder = {
        fileName,
        reading: { encoding: table.encoding, delimiter: table.delimiter, sheet: table.sheet },
        detected: { encoding: detected.encoding, delimiter: detected.delimiter },
        headings,
        mapping: await mappingOf(workspace.id, table, { headings }),
        empty: 'leave',
        fix: false,
        goodOnly: false,
      }
      const judgement = await judgeFile(parts, campaign, table, order)
      await makeRoom(workspace.id)
      const job = await jobs.draft({
        kind: 'import',
        workspaceId: workspace.id,
        personId: person.id,
        campaignId: campaign.id,
        title: `Import of “${fileName}” into ${campaign.name}`,
        payload: order,
      })
      await writeFile(jobs.fileOf(job.id), bytes)
      hold(job.id, { table, order, judgement })
      return view(job)
    },

    async adjust(
      id: number,
      { encoding, delimiter, sheet, headings, empty, fix, mapping }: Adjustment,
    ): Promise<PlanImport> {
      const job = await find(id)
      ensureIdle(job)
      const now = await opened(job)
      let { table } = now
      let order = { ...now.order, empty: empty ?? now.order.empty, fix: fix ?? now.order.fix }
      const isReadAnew = encoding !== undefined || delimiter !== undefined || sheet !== undefined
      if (isReadAnew) {
        const keepsDelimiter = sheet === undefined && encoding === undefined
        table = await tableOf(await bytesOf(job), {
          encoding: encoding ?? table.encoding,
          delimiter: delimiter ?? (keepsDelimiter ? table.delimiter : undefined),
          sheet: sheet ?? table.sheet,
        })
        const { encoding: read, delimiter: by, sheet: of } = table
        order = { ...order, reading: { encoding: read, delimiter: by, sheet: of } }
      }
      const isHeadedNow = headings === true && !order.headings
      order = { ...order, headings: headings ?? order.headings }
      if (mapping) {
        const twice = mapping.some((each, i) => each !== null && mapping.indexOf(each) !== i)
        if (twice)
          throw new Refusal(
            'invalid',
            'Two columns of the file stand for the same column of the plan. Leave one of them out.',
          )
        order = { ...order, mapping: order.mapping.map((_, i) => mapping[i] ?? null) }
      } else if (isReadAnew || isHeadedNow)
        order = { ...order, mapping: await mappingOf(job.workspaceId, table, order) }
      const judgement = await judgeFile(parts, await campaignOf(job), table, order)
      await jobs.redraft(id, order)
      hold(id, { table, order, judgement })
      return view(await find(id))
    },

    get: async (id: number): Promise<PlanImport> => view(await find(id)),

    async lines(id: number, verdict: LineVerdict | 'warned' | undefined, page: number, pageSize: number) {
      const { lines } = (await opened(await find(id))).judgement
      const isWanted = (line: (typeof lines)[number]) =>
        verdict === 'warned'
          ? line.verdict !== 'refuse' && line.findings.length > 0
          : verdict === undefined || line.verdict === verdict
      const wanted = lines.filter(isWanted)
      return {
        rows: wanted.slice(page * pageSize, (page + 1) * pageSize).map(({ action: _action, ...line }) => ({
          ...line,
          why: [...line.why],
          changes: [...line.changes],
          findings: [...line.findings],
        })),
        total: wanted.length,
        page,
        pageSize,
      }
    },

    async run(id: number, goodOnly: boolean): Promise<PlanImport> {
      const job = await find(id)
      ensureIdle(job)
      const file = await opened(job)
      const order = { ...file.order, goodOnly }
      hold(id, { ...file, order })
      const { create, change } = file.judgement.counts
      await jobs.begin(job, { payload: order, total: create + change })
      return view(await find(id))
    },

    /** Stops an import that runs, or puts a file away that was not imported yet. */
    async cancel(id: number): Promise<PlanImport> {
      const job = await find(id)
      const now = await view(job)
      if (job.state === 'draft') {
        held.delete(id)
        await jobs.discard(job)
      } else await jobs.cancel(job)
      return now
    },
  }
}
