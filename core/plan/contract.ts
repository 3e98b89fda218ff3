import { z } from 'zod'
import { endpoint, idParams, idQuery, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { codeFilter } from '../codes/index.ts'
import { job } from '../jobs/index.ts'
import { finding } from '../tagging/index.ts'
import { LINE_VERDICTS } from './planLine.ts'
import { ENCODINGS } from './encoding.ts'
import { fileNameFault } from './fileNames.ts'
import { DELIMITERS } from './table.ts'

/** A file may be this large, in bytes, and have this many lines. */
export const IMPORT_BYTES_MAX = 32 * 1024 * 1024
export const IMPORT_LINES_MAX = 20_000

export const STAGES = ['ready', 'running', 'done', 'failed', 'cancelled'] as const

/** A file that was handed in: how it is read, what it would do, and how far doing it is. */
export const planImport = z.object({
  /** The job it is. */
  id: z.int(),
  campaignId: z.int(),
  fileName: z.string(),
  kind: z.enum(['text', 'workbook']),
  encoding: z.enum(ENCODINGS),
  delimiter: z.string(),
  sheets: z.array(z.string()),
  sheet: z.string(),
  headings: z.boolean(),
  empty: z.enum(['leave', 'clear']),
  /** Whether what the linter can fix is fixed on the way in. */
  fix: z.boolean(),
  /** Every column of the file, the first few cells of it, and the column of the plan it stands for. */
  columns: z.array(z.object({ heading: z.string(), sample: z.array(z.string()), to: z.string().nullable() })),
  stage: z.enum(STAGES),
  done: z.int(),
  total: z.int(),
  counts: z.object({ create: z.int(), change: z.int(), same: z.int(), refuse: z.int(), warned: z.int() }),
  /** Why it failed, or what came of it. */
  sentence: z.string(),
})
export type PlanImport = z.infer<typeof planImport>

const importLine = z.object({
  line: z.int(),
  verdict: z.enum(LINE_VERDICTS),
  name: z.string(),
  why: z.array(z.string()),
  changes: z.array(z.object({ column: z.string(), was: z.string(), is: z.string() })),
  findings: z.array(finding),
})
export type ImportLine = z.infer<typeof importLine>

/** A pattern that files are named by. */
export const fileNamePattern = z
  .string()
  .max(200)
  .superRefine((text, context) => {
    const fault = fileNameFault(text)
    if (fault !== null) context.addIssue({ code: 'custom', message: fault })
  })

/** How a plan is looked at: kept for the workspace under a name. */
const viewValue = z.strictObject({
  columns: z.array(z.string().max(60)).max(100),
  sort: z.string().max(40),
  order: z.enum(['asc', 'desc']),
  group: z.enum(['', 'medium', 'route']),
  filter: codeFilter.omit({ campaignId: true, routeId: true }).partial(),
})
export const planView = z.object({ id: z.int(), name: z.string(), value: viewValue })
export type PlanView = z.infer<typeof planView>

/** What somebody chose once and finds again: which columns stand where. */
export const preferences = z.object({
  planColumns: z.array(z.string().max(60)).max(100).nullable(),
  planWidths: z.record(z.string().max(60), z.number().min(30).max(1200)),
})
export type Preferences = z.infer<typeof preferences>

/** A file of a plan, and what stands in it. */
export const planFile = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('plan.csv'), filter: codeFilter }),
  z.strictObject({ what: z.literal('plan.xlsx'), filter: codeFilter }),
  z.strictObject({ what: z.literal('links.csv'), filter: codeFilter.partial() }),
])
export type PlanFile = z.output<typeof planFile>

export const planApi = {
  read: endpoint({
    method: 'POST',
    path: '/imports',
    room: 'plan',
    access: { right: 'edit', things: { campaign: 'query.campaignId' } },
    status: 201,
    takes: 'application/octet-stream',
    bytesMax: IMPORT_BYTES_MAX,
    summary: 'Hand in a CSV file, an XLSX workbook or pasted cells, to see what importing it would do',
    query: z.strictObject({ campaignId: idQuery, name: requiredLine('the name of the file', 200) }),
    answer: planImport,
  }),
  adjust: endpoint({
    method: 'PATCH',
    path: '/imports/:id',
    room: 'plan',
    access: { right: 'edit', things: { job: 'params.id' } },
    summary: 'Say how the file is to be read, and what its columns stand for',
    params: idParams,
    body: z
      .strictObject({
        encoding: z.enum(ENCODINGS),
        delimiter: z.enum(DELIMITERS),
        sheet: z.string().max(100),
        headings: z.boolean(),
        empty: z.enum(['leave', 'clear']),
        fix: z.boolean(),
        mapping: z.array(z.string().max(60).nullable()).max(500),
      })
      .partial(),
    answer: planImport,
  }),
  get: endpoint({
    method: 'GET',
    path: '/imports/:id',
    room: 'plan',
    access: { right: 'view', things: { job: 'params.id' } },
    summary: 'What a file would do, or how far doing it is',
    params: idParams,
    answer: planImport,
  }),
  lines: endpoint({
    method: 'GET',
    path: '/imports/:id/lines',
    room: 'plan',
    access: { right: 'view', things: { job: 'params.id' } },
    summary: 'Line by line what a file would do',
    params: idParams,
    query: pageQuery(['line'], 'line').extend({ verdict: z.enum([...LINE_VERDICTS, 'warned']).optional() }),
    answer: pageOf(importLine),
  }),
  run: endpoint({
    method: 'POST',
    path: '/imports/:id/runs',
    room: 'plan',
    access: { right: 'edit', things: { job: 'params.id' } },
    status: 202,
    summary: 'Import: everything or nothing, or the good lines only',
    params: idParams,
    body: z.strictObject({ lines: z.enum(['all', 'good']) }),
    answer: planImport,
  }),
  cancel: endpoint({
    method: 'DELETE',
    path: '/imports/:id',
    room: 'plan',
    access: { right: 'edit', things: { job: 'params.id' } },
    summary: 'Stop a running import and take back what it did, or put the file away',
    params: idParams,
    answer: planImport,
  }),

  csv: endpoint({
    method: 'GET',
    path: '/plan.csv',
    room: 'plan',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'The plan as CSV (RFC 4180)',
    query: codeFilter,
    answers: 'text/csv',
  }),
  xlsx: endpoint({
    method: 'GET',
    path: '/plan.xlsx',
    room: 'plan',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'The plan as a workbook (ECMA-376)',
    query: codeFilter,
    answers: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  }),
  links: endpoint({
    method: 'GET',
    path: '/links.csv',
    room: 'plan',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' }, orAll: true },
    summary: 'Every short link with where it leads, old links of renamed pieces too',
    query: codeFilter.partial(),
    answers: 'text/csv',
  }),
  makeFile: endpoint({
    method: 'POST',
    path: '/plan-files',
    room: 'plan',
    access: {
      right: 'view',
      things: { campaign: 'body.filter.campaignId', route: 'body.filter.routeId' },
      orAll: true,
    },
    status: 202,
    summary: 'Have one of these files made by a job, to be fetched when it is ready',
    body: planFile,
    answer: job,
  }),

  views: endpoint({
    method: 'GET',
    path: '/views',
    room: 'plan',
    access: { right: 'view' },
    summary: 'Saved views of the plan',
    answer: z.object({ rows: z.array(planView) }),
  }),
  saveView: endpoint({
    method: 'POST',
    path: '/views',
    room: 'plan',
    access: { right: 'edit' },
    summary: 'Save a view under a name; one of that name is replaced',
    body: z.strictObject({ name: requiredLine('the view a name', 60), value: viewValue }),
    answer: planView,
  }),
  dropView: endpoint({
    method: 'DELETE',
    path: '/views/:id',
    room: 'plan',
    access: { right: 'edit', things: { view: 'params.id' } },
    summary: 'Delete a view',
    params: idParams,
  }),
  preferences: endpoint({
    method: 'GET',
    path: '/preferences',
    room: 'plan',
    access: { right: 'view' },
    summary: 'What you chose the last time',
    answer: preferences,
  }),
  changePreferences: endpoint({
    method: 'PATCH',
    path: '/preferences',
    room: 'plan',
    access: { right: 'view' },
    summary: 'Remember a choice',
    body: preferences.partial(),
    answer: preferences,
  }),
}
