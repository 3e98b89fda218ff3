import { writeFile } from 'node:fs/promises'
import { fileColumns, looksLikeHeadings, type LineVerdict, type PlanImport } from '@flimbo/core/plan'
import { Refusal } from '../api/index.ts'
import { tables, type CampaignRow, type JobRow } from '../database/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import type { ImportOrder } from './importFile.ts'
import { defineImportJob, type ImportParts } from './importJob.ts'
import { judgeFile } from './judge.ts'
import { readReading } from './mapping.ts'
import { openFiles, type Reading } from './openFiles.ts'

export type { ImportParts } from './importJob.ts'

/** What somebody corrects of how a file was understood. */
export interface Adjustment extends Reading {
  readonly headings?: boolean | undefined
  readonly empty?: 'leave' | 'clear' | undefined
  readonly fix?: boolean | undefined
  readonly mapping?: readonly (string | null)[] | undefined
}

/** So many files of a workspace wait to be imported; the oldest makes room. */
const DRAFTS_MAX = 20
/** Files on their way into a plan: each is a job, a draft until somebody has it carried out. */
export function planImports(parts: ImportParts) {
  const { database, tagging, jobs } = parts
  const files = openFiles(parts)
  defineImportJob(parts, files)

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
      const detected = await files.read(bytes, {})
      const { encodings, delimiters } = await readReading(database.read, workspace.id)
      // What begins with a byte order mark, or is UTF-8 throughout, is no guess that could be wrong.
      const encoding = detected.encoding === 'windows-1252' ? encodings[detected.encoding] : undefined
      const delimiter = delimiters[detected.delimiter]
      const table =
        detected.kind === 'text' && (encoding !== undefined || delimiter !== undefined)
          ? await files.read(bytes, { encoding, delimiter })
          : detected
      const columns = fileColumns((await tagging.rulesOf(workspace.id)).parameters)
      const headings = looksLikeHeadings(table.rows[0] ?? [], columns)
      const order: ImportOrder = {
        fileName,
        reading: { encoding: table.encoding, delimiter: table.delimiter, sheet: table.sheet },
        detected: { encoding: detected.encoding, delimiter: detected.delimiter },
        headings,
        mapping: await files.mappingOf(workspace.id, table, { headings }),
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
      files.hold(job.id, { table, order, judgement })
      return files.view(job)
    },

    async adjust(
      id: number,
      { encoding, delimiter, sheet, headings, empty, fix, mapping }: Adjustment,
    ): Promise<PlanImport> {
      const job = await files.find(id)
      ensureIdle(job)
      const now = await files.open(job)
      let { table } = now
      let order = { ...now.order, empty: empty ?? now.order.empty, fix: fix ?? now.order.fix }
      const isReadAnew = encoding !== undefined || delimiter !== undefined || sheet !== undefined
      if (isReadAnew) {
        const keepsDelimiter = sheet === undefined && encoding === undefined
        table = await files.read(await files.bytesOf(job), {
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
        order = { ...order, mapping: await files.mappingOf(job.workspaceId, table, order) }
      const judgement = await files.judge(job, table, order)
      await jobs.redraft(id, order)
      files.hold(id, { table, order, judgement })
      return files.view(await files.find(id))
    },

    get: async (id: number): Promise<PlanImport> => files.view(await files.find(id)),

    async lines(id: number, verdict: LineVerdict | 'warned' | undefined, page: number, pageSize: number) {
      const { lines } = (await files.open(await files.find(id))).judgement
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
      const job = await files.find(id)
      ensureIdle(job)
      const file = await files.open(job)
      const order = { ...file.order, goodOnly }
      files.hold(id, { ...file, order })
      const { create, change } = file.judgement.counts
      await jobs.begin(job, { payload: order, total: create + change })
      return files.view(await files.find(id))
    },

    /** Stops an import that runs, or puts a file away that was not imported yet. */
    async cancel(id: number): Promise<PlanImport> {
      const job = await files.find(id)
      const now = await files.view(job)
      if (job.state === 'draft') {
        files.release(id)
        await jobs.discard(job)
      } else await jobs.cancel(job)
      return now
    },
  }
}
