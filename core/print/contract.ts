import { z } from 'zod'
import { endpoint, idParams } from '../api/index.ts'
import { CHANGES_MAX, codeFilter, level, SIZE_MM } from '../codes/index.ts'
import { fileSum } from '../files/index.ts'
import { job } from '../jobs/index.ts'
import { FILE_NAME_PATTERN_USUAL, fileNamePattern } from '../plan/index.ts'
import { brokenRelease, release, releaseOrder } from './release.ts'
import { sheetFaults, sheetLayout } from './sheet.ts'
import { STATIC_CODES_MAX } from '../staticCodes/index.ts'
import { finish, pieceProof, PROOF_STATES } from '../symbol/index.ts'

const sizeMm = z.coerce
  .number({ error: 'Give the size in millimetres.' })
  .min(SIZE_MM.min, `Make the symbol at least ${String(SIZE_MM.min)} mm wide.`)
  .max(SIZE_MM.max, 'Make the symbol no wider than 5 m.')

/** Which pieces are meant: those of a list, or of them the named ones alone; and the named static codes of the campaign. */
const pieces = {
  filter: codeFilter,
  ids: z.array(z.int()).max(CHANGES_MAX).optional(),
  staticIds: z.array(z.int()).max(STATIC_CODES_MAX).default([]),
}
export type PiecesOrder = z.output<z.ZodObject<typeof pieces>>

const PIECE_THINGS = {
  campaign: 'body.filter.campaignId',
  route: 'body.filter.routeId',
  code: 'body.ids',
  staticCode: 'body.staticIds',
} as const

/** Files of many pieces in one ZIP file, with a list of them. */
export const printOrder = z.strictObject({
  ...pieces,
  pattern: fileNamePattern.default(FILE_NAME_PATTERN_USUAL),
  finish: finish.prefault({}),
})
export type PrintOrder = z.output<typeof printOrder>

/** Pieces laid out on sheets, or a proof sheet that somebody signs: a PDF of as many pages as it takes. */
export const sheetOrder = z.discriminatedUnion('what', [
  z.strictObject({
    what: z.literal('sheets'),
    ...pieces,
    layout: sheetLayout.superRefine((layout, context) => {
      for (const { path, message } of sheetFaults(layout))
        context.addIssue({ code: 'custom', path: [path], message })
    }),
    colours: z.enum(['rgb', 'cmyk']).default('cmyk'),
  }),
  z.strictObject({ what: z.literal('proof-sheet'), ...pieces }),
])
export type SheetOrder = z.output<typeof sheetOrder>

/** So many pages one PDF has at most. */
export const SHEETS_MAX = 5000

/** So many pieces are proofed by one job. */
export const PROOFS_MAX = 5000

export const printApi = {
  file: endpoint({
    method: 'GET',
    path: '/codes/:id/file',
    room: 'print',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'A piece as a file for printers or screens, in its house style and at its printed size',
    params: idParams,
    query: finish.extend({ level: level.optional(), mm: sizeMm.optional() }),
    answers: 'application/octet-stream',
  }),
  order: endpoint({
    method: 'POST',
    path: '/print-files',
    room: 'print',
    access: { right: 'view', things: PIECE_THINGS },
    status: 201,
    summary: 'Have the files of many pieces made, in one ZIP file with a list of them',
    body: printOrder,
    answer: job,
  }),
  sheets: endpoint({
    method: 'POST',
    path: '/sheet-files',
    room: 'print',
    access: { right: 'view', things: PIECE_THINGS },
    status: 201,
    summary: 'Have pieces laid out on sheets, or a proof sheet made, as one PDF',
    body: sheetOrder,
    answer: job,
  }),
  proofs: endpoint({
    method: 'POST',
    path: '/proof-runs',
    room: 'print',
    access: { right: 'edit', things: PIECE_THINGS },
    status: 201,
    summary: 'Measure whether pieces will read; what was measured of them as they are is not measured again',
    body: z.strictObject(pieces),
    answer: job,
  }),
  proof: endpoint({
    method: 'GET',
    path: '/codes/:id/proof',
    room: 'print',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'What was measured of a piece as it is; null where nothing was yet',
    params: idParams,
    answer: z.object({ proof: pieceProof.nullable() }),
  }),
  release: endpoint({
    method: 'POST',
    path: '/releases',
    room: 'print',
    access: { right: 'edit', things: PIECE_THINGS },
    status: 201,
    summary: 'Release pieces for print: their files are made and kept for ever, with what they were made of',
    body: z.strictObject({ ...pieces, ...releaseOrder }),
    answer: job,
  }),
  releases: endpoint({
    method: 'GET',
    path: '/codes/:id/releases',
    room: 'print',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'What of a piece left the house for print, the newest first',
    params: idParams,
    answer: z.object({ rows: z.array(release) }),
  }),
  staticFile: endpoint({
    method: 'GET',
    path: '/static-codes/:id/file',
    room: 'print',
    access: { right: 'view', things: { staticCode: 'params.id' } },
    summary: 'A static code as a file for printers or screens',
    params: idParams,
    query: finish,
    answers: 'application/octet-stream',
  }),
  staticReleases: endpoint({
    method: 'GET',
    path: '/static-codes/:id/releases',
    room: 'print',
    access: { right: 'view', things: { staticCode: 'params.id' } },
    summary: 'What of a static code left the house for print, the newest first',
    params: idParams,
    answer: z.object({ rows: z.array(release) }),
  }),
  releasedFile: endpoint({
    method: 'GET',
    path: '/releases/:id/files/:sum',
    room: 'print',
    access: { right: 'view', things: { release: 'params.id' } },
    summary: 'A file as it left the house, the same to the byte',
    params: idParams.extend({ sum: fileSum }),
    answers: 'application/octet-stream',
  }),
  broken: endpoint({
    method: 'GET',
    path: '/broken-releases',
    room: 'print',
    access: { right: 'view' },
    summary: 'Released pieces whose short link does not lead anybody on any more',
    answer: z.object({ rows: z.array(brokenRelease), total: z.int() }),
  }),
  summary: endpoint({
    method: 'GET',
    path: '/campaigns/:id/print',
    room: 'print',
    access: { right: 'view', things: { campaign: 'params.id' } },
    summary: 'How many pieces of a campaign are ready for print, and how many are not',
    params: idParams,
    answer: z.object({ counts: z.record(z.enum(PROOF_STATES), z.int()) }),
  }),
}
