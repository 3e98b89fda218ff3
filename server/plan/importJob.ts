import { headingForm } from '@flimbo/core/plan'
import { Refusal } from '../api/index.ts'
import { houseOf, slugLengthOf } from '../codes/index.ts'
import type { JobRow } from '../database/index.ts'
import { domainFor } from '../domains/index.ts'
import { JobCancelled, type JobContext, type JobResult } from '../jobs/index.ts'
import { forgetCodes, type Doors } from '../line/index.ts'
import { carryOut } from './carryOut.ts'
import { headingsOf, importOrder, type ImportOrder, type ReadTable } from './importFile.ts'
import { rememberMapping, rememberReading } from './mapping.ts'
import type { FileParts, OpenFiles } from './openFiles.ts'

export interface ImportParts extends FileParts {
  readonly doors: Doors
}

/** Has files carried out as jobs: one at a time, all or nothing, and once. */
export function defineImportJob(parts: ImportParts, files: OpenFiles): void {
  const { database, doors, live } = parts

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
    const campaign = await files.campaignOf(job)
    const file = await files.open(job)
    const { table } = file
    const order = importOrder.parse(job.payload)
    const judgement =
      live.edition(workspaceId) === file.judgement.edition
        ? file.judgement
        : await files.judge(job, table, order)
    files.hold(job.id, { table, order, judgement })
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
  parts.jobs.define({
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
}
