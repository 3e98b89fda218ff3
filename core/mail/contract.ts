import { z } from 'zod'
import { endpoint, idParams, pageOf, pageQuery } from '../api/index.ts'

/** Why a mail is sent. */
export const MAIL_KINDS = [
  'confirm',
  'answer',
  'lead',
  'summary',
  'notice',
  'report',
  'report-fault',
  'test',
] as const
export type MailKind = (typeof MAIL_KINDS)[number]
export const MAIL_KIND_NAMES: Readonly<Record<MailKind, string>> = {
  confirm: 'Asks whether the address is right',
  answer: 'Thanks for the answers',
  lead: 'Tells of a new lead',
  summary: 'Sums up',
  notice: 'Tells what happened',
  report: 'Report',
  'report-fault': 'Says why a report could not be made',
  test: 'Test',
}

/**
 * How far a mail is: it waits for its turn or for the mail server, was taken by it, was refused by it for good, was given
 * up after days without an answer, or waits until its address is confirmed.
 */
export const MAIL_STATES = ['waiting', 'sent', 'refused', 'given-up', 'unconfirmed'] as const
export type MailState = (typeof MAIL_STATES)[number]
export const MAIL_STATE_NAMES: Readonly<Record<MailState, string>> = {
  waiting: 'Waiting',
  sent: 'Sent',
  refused: 'Refused',
  'given-up': 'Given up',
  unconfirmed: 'Until confirmed',
}

/** How a mail server is reached: never with what it is signed in by. */
const mailSetup = z.object({
  /** Null where mail is not set up. */
  server: z
    .object({
      host: z.string(),
      port: z.int(),
      from: z.string(),
      /** Where what cannot be delivered goes back to. */
      bounce: z.string(),
      isStandIn: z.boolean(),
    })
    .nullable(),
  counts: z.record(z.enum(MAIL_STATES), z.int()),
})
export type MailSetup = z.infer<typeof mailSetup>

export const mail = z.object({
  id: z.int(),
  kind: z.enum(MAIL_KINDS),
  state: z.enum(MAIL_STATES),
  at: z.int(),
  /** Empty until it was written. */
  address: z.string(),
  subject: z.string(),
  attempts: z.int(),
  nextAt: z.int().nullable(),
  settledAt: z.int().nullable(),
  /** What the mail server said, or why it could not be reached. */
  reply: z.string(),
  campaignId: z.int().nullable(),
  leadId: z.int().nullable(),
})
export type Mail = z.infer<typeof mail>

/** What the mail stand-in does with the next mails it is sent. */
export const STAND_IN_MANNERS = ['take', 'refuse', 'delay', 'drop'] as const
export type StandInManner = (typeof STAND_IN_MANNERS)[number]

/** A mail as the stand-in received it, read by a parser of its own. */
export const receivedMail = z.object({
  number: z.int(),
  at: z.int(),
  /** Envelope (RFC 5321). */
  sender: z.string(),
  recipients: z.array(z.string()),
  messageId: z.string(),
  from: z.string(),
  to: z.string(),
  replyTo: z.string(),
  subject: z.string(),
  text: z.string(),
  html: z.string(),
  attachments: z.array(z.object({ name: z.string(), type: z.string(), bytes: z.int() })),
  /** Every header as it came. */
  headers: z.array(z.tuple([z.string(), z.string()])),
})
export type ReceivedMail = z.infer<typeof receivedMail>

export const mailApi = {
  setup: endpoint({
    method: 'GET',
    path: '/mail',
    room: 'mail',
    access: { right: 'view' },
    summary: 'How mail is sent, and how many are in which state',
    answer: mailSetup,
  }),
  list: endpoint({
    method: 'GET',
    path: '/mails',
    room: 'mail',
    access: { right: 'view' },
    summary: 'Mails that were sent or are to be, the newest first',
    query: pageQuery(['at'], 'at').extend({ state: z.enum(MAIL_STATES).optional() }),
    answer: pageOf(mail),
  }),
  retry: endpoint({
    method: 'POST',
    path: '/mails/:id/attempts',
    room: 'mail',
    access: { right: 'edit', things: { mail: 'params.id' } },
    summary: 'Try a mail that waits, was refused or given up, now',
    params: idParams,
  }),
  discard: endpoint({
    method: 'DELETE',
    path: '/mails/:id',
    room: 'mail',
    access: { right: 'edit', things: { mail: 'params.id' } },
    summary: 'Delete a mail that was not sent',
    params: idParams,
  }),
  test: endpoint({
    method: 'POST',
    path: '/mail/tests',
    room: 'mail',
    access: { right: 'edit' },
    summary: 'Send whoever asks a test mail',
    body: z.strictObject({}),
    answer: mail.pick({ id: true }),
    status: 202,
  }),
  received: endpoint({
    method: 'GET',
    path: '/mail/received',
    standIn: true,
    room: 'mail',
    access: { right: 'view' },
    summary: 'What the mail stand-in received lately, the newest first, and what it does with the next',
    answer: z.object({ rows: z.array(receivedMail), manner: z.enum(STAND_IN_MANNERS) }),
  }),
  manner: endpoint({
    method: 'POST',
    path: '/mail/received',
    standIn: true,
    room: 'mail',
    access: { right: 'edit' },
    summary: 'Say what the mail stand-in does with the next mails',
    body: z.strictObject({ manner: z.enum(STAND_IN_MANNERS) }),
  }),
}
