import { CONFIRM_DAYS, type FormSettings } from '@flimbo/core/forms'
import type { MailRow } from '../database/index.ts'
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

/** The same, as mails for the queue: nobody is thanked before they have confirmed their address, where they are to. */
export const mailsFor = ({ answer, confirmBy }: LeadMails): readonly Pick<MailRow, 'kind' | 'state'>[] => [
  ...(confirmBy === null ? [] : [{ kind: 'confirm', state: 'waiting' } as const]),
  ...(answer ? [{ kind: 'answer', state: confirmBy === null ? 'waiting' : 'unconfirmed' } as const] : []),
]
