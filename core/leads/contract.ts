import { z } from 'zod'
import {
  endpoint,
  idParams,
  idQuery,
  line,
  pageOf,
  pageQuery,
  versioned,
  versionedChange,
  someIds,
} from '../api/index.ts'
import { rowKey } from '../fields/index.ts'
import { job } from '../jobs/index.ts'
import { MAIL_KINDS, MAIL_STATES } from '../mail/index.ts'
import { calendarDay } from '../time/index.ts'
import { HELD_REASONS } from './held.ts'
import { answeredForm, leadNumbers, NUMBERS_BY } from './numbersShapes.ts'
import { leadFileLook } from './leadFile.ts'
import { leadStates } from './states.ts'

/** The key of one of the workspace's states. */
const leadState = rowKey
const TAGS_MAX = 20
const LEADS_AT_ONCE = 500

/** Somebody who answered a form, as lists show them. */
export const leadSummary = z.object({
  id: z.int(),
  version: z.int(),
  at: z.int(),
  /** What they are called by: the first short text they gave, or their mail address or telephone number. */
  title: z.string(),
  email: z.string(),
  phone: z.string(),
  state: leadState,
  assignedTo: z.int().nullable(),
  tags: z.array(z.string()),
  campaignId: z.int(),
  campaignName: z.string(),
  pageId: z.int(),
  /** Empty where the page is gone. */
  pageName: z.string(),
  codeId: z.int(),
  codeName: z.string(),
  city: z.string(),
  country: z.string(),
  held: z.enum(HELD_REASONS).nullable(),
  /** Whom somebody said they are the same person as: leads with the same `g:…`; or `s:…` where they are nobody else. Empty where mail address and telephone number tell. */
  personMark: z.string(),
})
export type LeadSummary = z.infer<typeof leadSummary>

/** One answer of theirs, in the words of the form they were shown. */
export const leadAnswer = z.object({
  question: z.string(),
  title: z.string(),
  text: z.string(),
  /** The key of a file that was sent. */
  file: z.object({ key: z.string(), name: z.string(), type: z.string(), bytes: z.int() }).nullable(),
})
export type LeadAnswer = z.infer<typeof leadAnswer>

export const leadNote = z.object({ id: z.int(), at: z.int(), by: z.string(), text: z.string() })

/** All that is known of a lead, and of the way it came. */
export const lead = leadSummary.extend({
  routeId: z.int(),
  routeName: z.string(),
  scanId: z.int(),
  language: z.string(),
  region: z.string(),
  device: z.string(),
  system: z.string(),
  utm: z.record(z.string(), z.string()),
  answers: z.array(leadAnswer),
  consents: z.array(z.object({ title: z.string(), words: z.string(), language: z.string() })),
  notes: z.array(leadNote),
  /** Until when their mail address can be confirmed; null where nobody asked. And when it was. */
  confirmBy: z.int().nullable(),
  confirmedAt: z.int().nullable(),
  /** What they were mailed, in its order. */
  mails: z.array(
    z.object({
      kind: z.enum(MAIL_KINDS),
      state: z.enum(MAIL_STATES),
      at: z.int(),
      settledAt: z.int().nullable(),
      reply: z.string(),
    }),
  ),
  /** What else the same person answered, by mail address or telephone number; the newest first. */
  others: z.array(leadSummary.pick({ id: true, at: true, title: true, pageName: true, state: true })),
})
export type Lead = z.infer<typeof lead>

/** Which leads are meant: those of the workspace, or of a campaign. */
export const leadFilter = z.strictObject({
  campaignId: idQuery.optional(),
  pageId: idQuery.optional(),
  codeId: idQuery.optional(),
  state: leadState.optional(),
  assignedTo: idQuery.optional(),
  tag: z.string().max(40).optional(),
  /** Where they were, by what they answered, and the medium of their piece; empty for what is not known. */
  country: z.string().max(2).optional(),
  region: z.string().max(200).optional(),
  city: z.string().max(200).optional(),
  device: z.string().max(40).optional(),
  medium: z.string().max(200).optional(),
  /** Words that stand in the answers. */
  q: z.string().max(100).optional(),
  /** A question of a form by its key, and what it was answered with: the key of a choice, `yes` or `no`, a number or a stretch of them, a day, a text. */
  question: rowKey.optional(),
  answer: z.string().max(200).optional(),
  /** Answers that were taken, those that are held as a program's, or both. */
  held: z.enum(['no', 'yes', 'both']).default('no'),
  from: calendarDay.optional(),
  to: calendarDay.optional(),
})
export type LeadFilter = z.infer<typeof leadFilter>

/** What of a lead is changed. */
export const leadChange = z
  .strictObject({
    state: leadState.optional(),
    assignedTo: z.int().positive().nullable().optional(),
    tags: z
      .array(line('a tag', 40).refine((tag) => tag !== '', 'Write the tag.'))
      .max(TAGS_MAX, `There are at most ${String(TAGS_MAX)} tags.`)
      .optional(),
    /** Joins them as one person, with a mark of their own, or parts one from all others. */
    personMark: z
      .string()
      .regex(/^(|[gs]:[a-z0-9]{1,16})$/)
      .optional(),
    /** Takes one that is held among the others. */
    isHeld: z.literal(false).optional(),
  })
  .refine((change) => Object.keys(change).length > 0, 'Say what is changed.')
export type LeadChange = z.infer<typeof leadChange>

const things = (from: 'query' | 'body') => ({
  campaign: `${from}.campaignId`,
  page: `${from}.pageId`,
  code: `${from}.codeId`,
})

/** So many answers are taken from a file at once. */
export const LEAD_LINES_MAX = 5000
const FIELDS_MAX = 500
const LINES_BYTES_MAX = 10_000_000
const TEXT_MAX = 20_000

const leadLine = z.strictObject({
  line: z.int().positive(),
  at: z.string().max(40),
  sent: z
    .array(z.tuple([z.string().max(60), z.array(z.string().max(TEXT_MAX)).max(FIELDS_MAX)]))
    .max(FIELDS_MAX),
})

export const leadsApi = {
  list: endpoint({
    method: 'GET',
    path: '/leads',
    room: 'leads',
    access: { right: 'view', things: things('query'), orAll: true },
    summary: 'Who answered forms, the newest first',
    query: pageQuery(['at'], 'at').extend(leadFilter.shape),
    answer: pageOf(leadSummary).extend({
      /** How many of the filter, but for its state, are in each. */
      states: z.record(z.string(), z.int()),
    }),
  }),
  states: endpoint({
    method: 'GET',
    path: '/lead-states',
    room: 'leads',
    access: { right: 'view' },
    summary: 'Where the office can stand with somebody who answered',
    answer: versioned(leadStates),
  }),
  changeStates: endpoint({
    method: 'PATCH',
    path: '/lead-states',
    room: 'leads',
    access: { right: 'administer' },
    summary: 'Name them anew; one that leads are in is not removed',
    body: versionedChange(leadStates),
    answer: versioned(leadStates),
  }),
  importAnswers: endpoint({
    method: 'POST',
    path: '/lead-imports',
    room: 'leads',
    access: {
      right: 'edit',
      things: { campaign: 'body.campaignId', page: 'body.pageId', code: 'body.codeId' },
    },
    summary: 'Take in answers that were given elsewhere: lines without a fault, each once',
    bytesMax: LINES_BYTES_MAX,
    body: z.strictObject({
      campaignId: z.int().positive(),
      pageId: z.int().positive(),
      part: rowKey,
      /** The piece that they are counted for. */
      codeId: z.int().positive(),
      lines: z
        .array(leadLine)
        .min(1, 'There is no line of answers in the file.')
        .max(LEAD_LINES_MAX, `Take in at most ${String(LEAD_LINES_MAX)} answers at once.`),
    }),
    answer: z.object({
      stored: z.int(),
      /** Those that were taken in before. */
      known: z.int(),
      faults: z.array(z.object({ line: z.int(), question: z.string(), sentence: z.string() })),
    }),
  }),
  fresh: endpoint({
    method: 'GET',
    path: '/new-leads',
    room: 'leads',
    access: { right: 'view' },
    summary: 'How many leads are new in each campaign, the latest first',
    answer: z.object({
      rows: z.array(
        z.object({ campaignId: z.int(), campaignName: z.string(), count: z.int(), latestAt: z.int() }),
      ),
    }),
  }),
  forms: endpoint({
    method: 'GET',
    path: '/answered-forms',
    room: 'leads',
    access: { right: 'view', things: { campaign: 'query.campaignId' } },
    summary: 'The forms of a campaign that somebody answered',
    query: z.strictObject({ campaignId: idQuery }),
    answer: z.object({ rows: z.array(answeredForm) }),
  }),
  numbers: endpoint({
    method: 'GET',
    path: '/lead-numbers',
    room: 'leads',
    access: { right: 'view', things: things('query') },
    summary:
      'What was answered to each question of a form, in numbers: of all, or by piece, place, device or month',
    query: leadFilter
      .extend({ campaignId: idQuery, pageId: idQuery, part: rowKey, by: z.enum(NUMBERS_BY).optional() })
      .omit({ question: true, answer: true }),
    answer: leadNumbers,
  }),
  variants: endpoint({
    method: 'GET',
    path: '/routes/:id/variant-leads',
    room: 'leads',
    access: { right: 'view', things: { route: 'params.id' } },
    summary: 'How many leads each variant of a route’s splits brought',
    params: idParams,
    query: z.strictObject({ from: calendarDay.optional(), to: calendarDay.optional() }),
    answer: z.object({
      rows: z.array(z.object({ exit: z.string(), variant: z.string(), leads: z.int() })),
    }),
  }),
  get: endpoint({
    method: 'GET',
    path: '/leads/:id',
    room: 'leads',
    access: { right: 'view', things: { lead: 'params.id' } },
    summary: 'All that is known of one',
    params: idParams,
    answer: lead,
  }),
  change: endpoint({
    method: 'POST',
    path: '/lead-changes',
    room: 'leads',
    access: { right: 'edit', things: { lead: 'body.ids' } },
    summary: 'Change the state, the person, or the tags of some',
    body: z.strictObject({ ids: someIds(LEADS_AT_ONCE), set: leadChange }),
    /** What each was before, so that it can be changed back. */
    answer: z.object({
      were: z.array(
        leadSummary.pick({ id: true, state: true, assignedTo: true, tags: true, personMark: true }),
      ),
    }),
  }),
  note: endpoint({
    method: 'POST',
    path: '/leads/:id/notes',
    room: 'leads',
    access: { right: 'edit', things: { lead: 'params.id' } },
    summary: 'Write a note on one',
    params: idParams,
    body: z.strictObject({ text: z.string().trim().min(1, 'Write the note.').max(2000) }),
    answer: lead,
  }),
  erase: endpoint({
    method: 'POST',
    path: '/leads/:id/erase',
    room: 'leads',
    access: { right: 'edit', things: { lead: 'params.id' } },
    summary:
      'Erase a person: every answer with the same mail address or telephone number, with files and notes',
    params: idParams,
    body: z.strictObject({}),
    answer: z.object({ erased: z.int() }),
  }),
  person: endpoint({
    method: 'GET',
    path: '/leads/:id/person.json',
    room: 'leads',
    access: { right: 'view', things: { lead: 'params.id' } },
    summary: 'All that is kept of one person, as a file',
    params: idParams,
    answers: 'application/json',
  }),
  file: endpoint({
    method: 'GET',
    path: '/leads/:id/files/:key',
    room: 'leads',
    access: { right: 'view', things: { lead: 'params.id' } },
    summary: 'A file that was sent with an answer, to be saved',
    params: idParams.extend({ key: z.string().max(40) }),
    answers: 'application/octet-stream',
  }),
  makeFile: endpoint({
    method: 'POST',
    path: '/lead-files',
    room: 'leads',
    access: { right: 'view', things: things('body'), orAll: true },
    status: 202,
    summary: 'Have them written as a file by a job, a row each: CSV (RFC 4180) or a sheet (Office Open XML)',
    body: leadFilter.extend({ look: leadFileLook.optional() }),
    answer: job,
  }),
}
