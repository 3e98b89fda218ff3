import { z } from 'zod'
import { email } from '../api/index.ts'
import { WEEKDAYS, zoneName, type Recurrence } from '../time/index.ts'
import { REPORT_FILES } from './report.ts'

export const MAILING_EVERY = ['hour', 'day', 'week', 'month'] as const
export type MailingEvery = (typeof MAILING_EVERY)[number]

const MAIL_TO_MAX = 20
const MESSAGE_MAX = 2000

/** When a report is mailed, to whom, and with what. */
export const mailingSettings = z.strictObject({
  every: z.enum(MAILING_EVERY),
  /** By the clock of `zone`; an hourly one comes at the full hour. */
  at: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as 07:00.')
    .default('07:00'),
  /** 1 is Monday (ISO 8601). */
  weekday: z.int().min(1).max(7).default(1),
  monthDay: z.int().min(1).max(28, 'Choose a day from 1 to 28, which every month has.').default(1),
  zone: zoneName,
  to: z
    .array(email)
    .min(1, 'Give at least one e-mail address.')
    .max(MAIL_TO_MAX, `Give at most ${String(MAIL_TO_MAX)} addresses; a group address reaches more people.`)
    .refine((all) => new Set(all).size === all.length, 'An address stands there twice.'),
  /** What is said above the figures. */
  message: z
    .string()
    .trim()
    .max(MESSAGE_MAX, `Make the message no longer than ${String(MESSAGE_MAX)} characters.`)
    .default(''),
  files: z
    .array(z.enum(REPORT_FILES))
    .refine((all) => new Set(all).size === all.length, 'A file is asked for twice.')
    .default(['pdf']),
  isPaused: z.boolean().default(false),
})
export type MailingSettings = z.infer<typeof mailingSettings>

/** When it comes, as `nextTime` takes it. */
export const recurrenceOf = ({ every, at, weekday, monthDay }: MailingSettings): Recurrence =>
  every === 'hour' ? { every } : { every, at, weekday, monthDay }

/** When a report is mailed: "every Monday at 07:00, Europe/Berlin". */
export function mailingInWords({ every, at, weekday, monthDay, zone }: MailingSettings): string {
  if (every === 'hour') return 'every hour'
  const when = {
    day: 'every day',
    week: `every ${WEEKDAYS[weekday - 1] ?? ''}`,
    month: `on day ${String(monthDay)} of each month`,
  }[every]
  return `${when} at ${at}, ${zone}`
}
