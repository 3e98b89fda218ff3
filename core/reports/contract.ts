import { z } from 'zod'
import { endpoint, idParams, idQuery, type Places } from '../api/index.ts'
import { job } from '../jobs/index.ts'
import { calendarDay } from '../time/index.ts'
import { reportData } from './made.ts'
import { mailingSettings } from './mailing.ts'
import { REPORT_FILES, reportContent } from './report.ts'

export const report = z.object({
  id: z.int(),
  content: reportContent,
  /** The client or the campaign it is of, by name; that of the workspace where it is of all. */
  of: z.string(),
  /** Whose days its questions are asked in. */
  zone: z.string(),
  version: z.int(),
  by: z.string(),
  createdAt: z.int(),
  changedAt: z.int(),
  /** Links that can be opened, and mailings that are not paused. */
  links: z.int(),
  mailings: z.int(),
})
export type Report = z.infer<typeof report>

/** A read-only link to a report. */
export const reportLink = z.object({
  id: z.int(),
  /** Where it is opened, without signing in. */
  address: z.string(),
  /** Its last day, in the zone of the report. */
  until: z.string(),
  isOver: z.boolean(),
  hasPassword: z.boolean(),
  by: z.string(),
  createdAt: z.int(),
  /** How often it was opened, and when last. */
  opened: z.int(),
  openedAt: z.int().nullable(),
})
export type ReportLink = z.infer<typeof reportLink>

export const LINK_PASSWORD_MIN = 8

export const newReportLink = z.strictObject({
  until: calendarDay,
  /** Null for none. */
  password: z
    .string()
    .min(LINK_PASSWORD_MIN, `Choose a password of at least ${String(LINK_PASSWORD_MIN)} characters, or none.`)
    .max(200, 'Make the password no longer than 200 characters.')
    .nullable()
    .default(null),
})

/** When a report is mailed, and what became of it. */
export const reportMailing = z.object({
  id: z.int(),
  settings: mailingSettings,
  /** Who is told where it cannot be made. */
  by: z.string(),
  /** When it comes next; null while it is paused. */
  nextAt: z.int().nullable(),
  /** When it was mailed last; null where it never was. */
  sentAt: z.int().nullable(),
  /** Why it could not be made last time; empty where it could. */
  fault: z.string(),
})
export type ReportMailing = z.infer<typeof reportMailing>

/** Where the ids of things stand in what a report holds. */
const thingsAt = (place: string): Places => ({
  client: [`${place}.clientId`, `${place}.blocks.value.clientId`],
  campaign: [
    `${place}.campaignId`,
    `${place}.blocks.value.campaignId`,
    `${place}.blocks.value.view.otherCampaignId`,
  ],
  route: `${place}.blocks.value.routeId`,
  code: `${place}.blocks.value.codeId`,
  houseStyle: `${place}.styleId`,
})

export const reportsApi = {
  list: endpoint({
    method: 'GET',
    path: '/reports',
    room: 'reports',
    access: {
      right: 'view',
      things: { client: 'query.clientId', campaign: 'query.campaignId' },
      orAll: true,
    },
    summary: 'Reports by name: of a campaign, of a client and its campaigns, or all',
    query: z.strictObject({ clientId: idQuery.optional(), campaignId: idQuery.optional() }),
    answer: z.object({ rows: z.array(report) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/reports',
    room: 'reports',
    access: { right: 'edit', things: thingsAt('body'), orAll: true },
    status: 201,
    summary: 'Save a report: questions to the figures, with words between',
    body: reportContent,
    answer: report,
  }),
  get: endpoint({
    method: 'GET',
    path: '/reports/:id',
    room: 'reports',
    access: { right: 'view', things: { report: 'params.id' } },
    summary: 'One report',
    params: idParams,
    answer: report,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/reports/:id',
    room: 'reports',
    access: { right: 'edit', things: { report: 'params.id', ...thingsAt('body.content') } },
    summary: 'Change what a report holds',
    params: idParams,
    body: z.strictObject({ version: z.int(), content: reportContent }),
    answer: report,
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/reports/:id',
    room: 'reports',
    access: { right: 'edit', things: { report: 'params.id' } },
    summary: 'Delete a report, with its links and mailings',
    params: idParams,
  }),
  data: endpoint({
    method: 'GET',
    path: '/reports/:id/data',
    room: 'reports',
    access: { right: 'view', things: { report: 'params.id' } },
    summary: 'The answers to all questions of a report, as they are now',
    params: idParams,
    answer: reportData,
  }),
  page: endpoint({
    method: 'POST',
    path: '/report-pages',
    room: 'reports',
    access: { right: 'view', things: thingsAt('body'), orAll: true },
    summary: 'A report as its readers would see it, saved or not, as a whole document (HTML)',
    body: reportContent,
    answer: z.object({ markup: z.string() }),
  }),
  makeFile: endpoint({
    method: 'POST',
    path: '/reports/:id/files',
    room: 'reports',
    access: { right: 'view', things: { report: 'params.id' } },
    status: 202,
    summary: 'Have a report made as a file by a job: PDF, XLSX, CSV or JSON',
    params: idParams,
    body: z.strictObject({ file: z.enum(REPORT_FILES) }),
    answer: job,
  }),
  links: endpoint({
    method: 'GET',
    path: '/reports/:id/links',
    room: 'reports',
    access: { right: 'edit', things: { report: 'params.id' } },
    summary: 'The read-only links to a report, the newest first',
    params: idParams,
    answer: z.object({ rows: z.array(reportLink) }),
  }),
  addLink: endpoint({
    method: 'POST',
    path: '/reports/:id/links',
    room: 'reports',
    access: { right: 'edit', things: { report: 'params.id' } },
    status: 201,
    summary: 'Make a read-only link to a report, good until a day, with a password or without',
    params: idParams,
    body: newReportLink,
    answer: reportLink,
  }),
  removeLink: endpoint({
    method: 'DELETE',
    path: '/report-links/:id',
    room: 'reports',
    access: { right: 'edit', things: { reportLink: 'params.id' } },
    summary: 'Delete a link: whoever has it sees nothing from now on',
    params: idParams,
  }),
  mailings: endpoint({
    method: 'GET',
    path: '/reports/:id/mailings',
    room: 'reports',
    access: { right: 'view', things: { report: 'params.id' } },
    summary: 'When a report is mailed, and to whom',
    params: idParams,
    answer: z.object({ rows: z.array(reportMailing) }),
  }),
  addMailing: endpoint({
    method: 'POST',
    path: '/reports/:id/mailings',
    room: 'reports',
    access: { right: 'edit', things: { report: 'params.id' } },
    status: 201,
    summary: 'Have a report mailed again and again',
    params: idParams,
    body: mailingSettings,
    answer: reportMailing,
  }),
  changeMailing: endpoint({
    method: 'PATCH',
    path: '/report-mailings/:id',
    room: 'reports',
    access: { right: 'edit', things: { reportMailing: 'params.id' } },
    summary: 'Change when a report is mailed, to whom and with what, or pause that',
    params: idParams,
    body: mailingSettings,
    answer: reportMailing,
  }),
  removeMailing: endpoint({
    method: 'DELETE',
    path: '/report-mailings/:id',
    room: 'reports',
    access: { right: 'edit', things: { reportMailing: 'params.id' } },
    summary: 'Mail a report no more',
    params: idParams,
  }),
  mailNow: endpoint({
    method: 'POST',
    path: '/report-mailings/:id/mails',
    room: 'reports',
    access: { right: 'edit', things: { reportMailing: 'params.id' } },
    status: 202,
    summary: 'Mail a report now, beside when it comes anyway',
    params: idParams,
    answer: job,
  }),
}
