import {
  mailingSettings,
  recurrenceOf,
  reportsApi,
  type MailingSettings,
  type ReportMailing,
} from '@flimbo/core/reports'
import { nextTime } from '@flimbo/core/time'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, peopleNames, tables, type Database, type ReportMailingRow } from '../database/index.ts'
import type { Jobs, JobViewer } from '../jobs/index.ts'
import { mailingJob } from './mailing.ts'

const MAILINGS_MAX = 20

interface Parts {
  readonly database: Database
  readonly jobs: Jobs
  readonly jobView: JobViewer
}

/** When it comes next; null while it is paused. */
const nextOf = (settings: MailingSettings, now: number): number | null =>
  settings.isPaused ? null : nextTime(recurrenceOf(settings), settings.zone, now)

/** The endpoints of when reports are mailed. */
export function reportMailingEndpoints(mounts: Mounts, { database, jobs, jobView }: Parts): void {
  const { read } = database

  async function viewed(rows: readonly ReportMailingRow[]): Promise<ReportMailing[]> {
    const nameOf = await peopleNames(
      read,
      rows.map(({ personId }) => personId),
    )
    return rows.map(({ id, settings, personId, nextAt, sentAt, fault }) => ({
      ...{ id, settings, nextAt, sentAt, fault },
      by: nameOf(personId),
    }))
  }
  async function view(id: number): Promise<ReportMailing> {
    const [mailing] = await viewed([await read.findOneByOrFail(tables.reportMailings, { id })])
    if (!mailing) throw new Error('A mailing that is there has a view')
    return mailing
  }

  mount(mounts, reportsApi.mailings, async ({ params: { id } }) => ({
    rows: await viewed(
      await read.find(tables.reportMailings, { where: { reportId: id }, order: { id: 'ASC' } }),
    ),
  }))

  mount(mounts, reportsApi.addMailing, async ({ params: { id }, body, who }) => {
    const now = Date.now()
    const mailingId = await database.write(async (manager) => {
      if ((await manager.countBy(tables.reportMailings, { reportId: id })) >= MAILINGS_MAX)
        throw wrongField(
          'every',
          `This report is mailed in ${String(MAILINGS_MAX)} ways already. Delete one first.`,
        )
      const row = { workspaceId: who.workspace.id, reportId: id, personId: who.person.id, createdAt: now }
      return insertedId(
        await manager.insert(tables.reportMailings, {
          ...row,
          settings: body as never,
          nextAt: nextOf(body, now),
          sentAt: null,
          fault: '',
        }),
      )
    })
    return view(mailingId)
  })

  mount(mounts, reportsApi.changeMailing, async ({ params: { id }, body }) => {
    await database.write((manager) =>
      manager.update(
        tables.reportMailings,
        { id },
        { settings: body, nextAt: nextOf(body, Date.now()), fault: '' },
      ),
    )
    return view(id)
  })

  mount(mounts, reportsApi.removeMailing, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.reportMailings, { id }))
  })

  mount(mounts, reportsApi.mailNow, async ({ params: { id }, who }) => {
    const mailing = await read.findOneByOrFail(tables.reportMailings, { id })
    const settings = mailingSettings.safeParse(mailing.settings)
    if (!settings.success) throw wrongField('to', 'Nobody is left to mail it to. Give an address first.')
    const report = await read.findOneByOrFail(tables.reports, { id: mailing.reportId })
    const job = await jobs.add(mailingJob(mailing, report, Date.now(), who.person.id))
    return jobView.one(job, who)
  })
}
