import { CONFIRM_DAYS, type FormSettings } from '@flimbo/core/forms'
import type { LeadMails } from './record.ts'

const DAY_MS = 86_400_000

/** What a form mails to whoever answers it at a moment (UTC ms). */
export const mailsOf = (
  { mails, confirms, confirmDays }: Pick<FormSettings, 'mails' | 'confirms' | 'confirmDays'>,
  at: number,
): LeadMails => ({
  answer: mails,
  confirmBy: confirms ? at + (confirmDays ?? CONFIRM_DAYS) * DAY_MS : null,
})
