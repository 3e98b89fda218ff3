import { mkdirSync } from 'node:fs'
import { readdir, rm, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { LessThanOrEqual, type EntityManager } from 'typeorm'
import {
  failedIn,
  recurrenceOf,
  readStoredReport,
  reportFileName,
  reportHeadlines,
  reportSubtitle,
  type MadeReport,
  type ReportFile,
} from '@flimbo/core/reports'
import { dayIn, nextTime } from '@flimbo/core/time'
import { Refusal } from '../api/index.ts'
import { tables, type Database, type ReportMailingRow, type ReportRow } from '../database/index.ts'
import {
  GIVEN_UP_MS,
  lookAgain,
  type JobContext,
  type Jobs,
  type JobWork,
  type NewJob,
} from '../jobs/index.ts'
import { queueMail } from '../mail/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { FILE_ENDINGS, FILE_TYPES, type ReportDrawing } from './drawing.ts'
import { BUSY, type MakeReport } from './make.ts'

const LOOK_MS = 20_000
const AT_ONCE = 50
const TRIES = 3
/** Mail servers commonly take 25 MB of a mail, which grows by a third on the way (common practice, no published source). */
const FILES_BYTES_MAX = 15 << 20
const HOUR_MS = 3_600_000

interface Parts {
  readonly database: Database
  readonly jobs: Jobs
  readonly live: Pick<LiveHub, 'tell'>
  readonly makeReport: MakeReport
  readonly reportDrawing: ReportDrawing
  /** Where files wait until they were mailed. */
  readonly directory: string
}

/** What a job that mails a report is told. */
interface MailingOrder {
  readonly mailingId: number
  /** The moment it was due, in UTC ms: its days are worked out of that, however late it is. */
  readonly at: number
  /** Whether somebody asked for it, beside when it comes anyway. */
  readonly isExtra: boolean
}

/** A file that goes with a mail. */
export interface MailedFile {
  readonly name: string
  readonly type: string
  /** What it is called where it lies. */
  readonly key: string
}

/** What a mail with a report is told, for each whom it goes to. */
export interface ReportMailPayload {
  readonly mailingId: number
  readonly to: string
  readonly owner: string
  readonly subject: string
  readonly message: string
  /** Questions with what they come to. */
  readonly figures: readonly (readonly [title: string, value: string])[]
  readonly files: readonly MailedFile[]
}

/** What whoever set a mailing up is told where it could not be made. */
export interface ReportFaultPayload {
  readonly reportId: number
  readonly name: string
  readonly sentence: string
}

/** A job that mails a report. */
export const mailingJob = (
  { id, workspaceId }: ReportMailingRow,
  { name, campaignId }: ReportRow,
  at: number,
  personId: number | null,
): NewJob => ({
  kind: 'report',
  workspaceId,
  personId,
  campaignId,
  title: `Mail the report “${name}”`,
  payload: { mailingId: id, at, isExtra: personId !== null } satisfies MailingOrder,
})

/** Each question with what it comes to, as a mail says it. */
const figuresOf = (made: MadeReport): [string, string][] =>
  reportHeadlines(made).map(({ title, figure: { value, beside } }) => [
    title,
    beside.trim() === '' ? value : `${value} (${beside})`,
  ])

/** The work of mailing a report: it is made once, and mailed to each of its readers. */
export function mailingWork({ database, live, makeReport, reportDrawing, directory }: Parts): JobWork {
  const { read } = database
  mkdirSync(directory, { recursive: true })

  async function filesOf(
    jobId: number,
    workspaceId: number,
    made: MadeReport,
    wanted: readonly ReportFile[],
  ): Promise<MailedFile[]> {
    const files: MailedFile[] = []
    let bytes = 0
    for (const file of wanted) {
      const content = await reportDrawing.file(workspaceId, made, file)
      bytes += content.length
      if (bytes > FILES_BYTES_MAX)
        throw new Refusal(
          'tooLarge',
          'Its files are larger than mail servers take (15 MB). Send fewer of them, or a link to the report.',
        )
      const name = reportFileName(made, dayIn(made.zone, made.madeAt), FILE_ENDINGS[file])
      const key = `${String(jobId)}-${file}`
      await writeFile(join(directory, key), content)
      files.push({ name, type: FILE_TYPES[file], key })
    }
    return files
  }

  /** Tells whoever set it up, once it is clear that it cannot be made. */
  async function tellFault(mailing: ReportMailingRow, report: ReportRow, sentence: string): Promise<void> {
    await database.write(async (manager) => {
      await manager.update(tables.reportMailings, { id: mailing.id }, { fault: sentence })
      await queueMail(manager, {
        workspaceId: mailing.workspaceId,
        campaignId: report.campaignId,
        personId: mailing.personId,
        kind: 'report-fault',
        at: Date.now(),
        payload: { reportId: report.id, name: report.name, sentence } satisfies ReportFaultPayload,
      })
    })
    live.tell(mailing.workspaceId, { type: 'mails' })
  }

  async function mailAll(
    mailing: ReportMailingRow,
    report: ReportRow,
    { at, jobId }: { readonly at: number; readonly jobId: number },
    { progress, settle }: JobContext,
  ): Promise<string> {
    const { workspaceId, settings } = mailing
    const workspace = await read.findOneByOrFail(tables.workspaces, { id: workspaceId })
    progress(0, 3)
    const made = await makeReport(workspace, readStoredReport(report.content), at)
    const [failed] = failedIn(made)
    if (failed) throw new Refusal('invalid', `“${failed.title}”: ${failed.sentence}`)
    progress(1, 3)
    const files = await filesOf(jobId, workspaceId, made, settings.files)
    progress(2, 3)
    const figures = figuresOf(made)
    const subject = figures.length > 0 ? `${made.name}: ${reportSubtitle(made)}` : made.name
    const sentence = `It was mailed to ${String(settings.to.length)} ${settings.to.length === 1 ? 'address' : 'addresses'}.`
    await database.write(async (manager: EntityManager) => {
      for (const to of settings.to)
        await queueMail(manager, {
          workspaceId,
          campaignId: report.campaignId,
          kind: 'report',
          at: Date.now(),
          payload: {
            mailingId: mailing.id,
            to,
            owner: made.owner,
            subject,
            message: settings.message,
            figures,
            files,
          } satisfies ReportMailPayload,
        })
      await manager.update(tables.reportMailings, { id: mailing.id }, { sentAt: at, fault: '' })
      await settle(manager, sentence)
    })
    live.tell(workspaceId, { type: 'mails' })
    return sentence
  }

  return {
    kind: 'report',
    atOnce: 1,
    tries: TRIES,
    async run(job, context) {
      // Only this room orders them.
      const { mailingId, at, isExtra } = job.payload as MailingOrder
      const mailing = await read.findOneBy(tables.reportMailings, { id: mailingId })
      const report = mailing && (await read.findOneBy(tables.reports, { id: mailing.reportId }))
      if (!mailing || !report) return { sentence: 'The report is not mailed any more.' }
      // The office may have ended between two steps: what was mailed is not mailed twice.
      if (!isExtra && (mailing.sentAt ?? 0) >= at) return { sentence: 'It was mailed already.' }
      if (mailing.settings.to.length === 0) return { sentence: 'Nobody is left to mail it to.' }
      try {
        return { sentence: await mailAll(mailing, report, { at, jobId: job.id }, context) }
      } catch (error) {
        const isBusy = error instanceof Refusal && error.problem.status === BUSY
        if (error instanceof Refusal && !isBusy) await tellFault(mailing, report, error.message)
        else if (job.attempts >= TRIES && !context.signal.aborted)
          await tellFault(
            mailing,
            report,
            'Something went wrong on the server. Mail it again from the report.',
          )
        // A refusal is final; what was only busy is tried again.
        throw isBusy ? new Error(error.message, { cause: error }) : error
      }
    },
  }
}

/** Has reports mailed that are due, and forgets files that were mailed or given up long ago. */
export async function mailDueReports({ database, jobs, directory }: Parts, now: number): Promise<void> {
  const { read } = database
  const due = await read.find(tables.reportMailings, {
    where: { nextAt: LessThanOrEqual(now) },
    order: { nextAt: 'ASC' },
    take: AT_ONCE,
  })
  for (const mailing of due) {
    const { id, settings, nextAt } = mailing
    const report = await read.findOneBy(tables.reports, { id: mailing.reportId })
    // First what is to be done, then when it comes next: ended in between, it is ordered twice and mailed once.
    if (report) await jobs.add(mailingJob(mailing, report, nextAt ?? now, null))
    const next = nextTime(recurrenceOf(settings), settings.zone, now)
    await database.writeAside((manager) => manager.update(tables.reportMailings, { id }, { nextAt: next }))
  }
  for (const name of await readdir(directory)) {
    const file = join(directory, name)
    const { mtimeMs } = await stat(file)
    if (mtimeMs < now - GIVEN_UP_MS - HOUR_MS) await rm(file, { force: true })
  }
}

/** Looks again and again, for as long as the office runs. */
export const startMailingReports = (parts: Parts, failed: (error: unknown) => void) =>
  lookAgain(() => mailDueReports(parts, Date.now()), failed, { everyMs: LOOK_MS, firstMs: 2000 })
