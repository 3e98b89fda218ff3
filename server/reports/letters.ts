import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { textFromPlain } from '@flimbo/core/fields'
import { writeMail } from '@flimbo/core/mail'
import { tables, type Database } from '../database/index.ts'
import type { Addresses } from '../line/index.ts'
import type { WriteLetter } from '../mail/index.ts'
import type { ReportFaultPayload, ReportMailPayload } from './mailing.ts'
import type { MailingEnds } from './mailingEnds.ts'

interface Parts {
  readonly database: Pick<Database, 'read'>
  readonly addresses: Addresses
  readonly ends: MailingEnds
  /** Where files wait until they were mailed. */
  readonly directory: string
}

/** Writes the mails that carry reports, and those that say why one could not be made. */
export function reportLetters({ database: { read }, addresses, ends, directory }: Parts): {
  report: WriteLetter
  'report-fault': WriteLetter
} {
  return {
    async report({ payload }) {
      // It was one when it was stored.
      const { mailingId, to, owner, subject, message, figures, files } = payload as ReportMailPayload
      const mailing = await read.findOneBy(tables.reportMailings, { id: mailingId })
      // Whoever ended these mails in the meantime gets none.
      if (!mailing?.settings.to.includes(to)) return null
      const person = await read.findOneBy(tables.people, { id: mailing.personId })
      const end = addresses.office + ends.pathOf(mailingId, to)
      const written = writeMail({
        language: 'en',
        subject,
        blocks: textFromPlain(message === '' ? subject : message),
        rows: figures,
        notes: [
          ...(files.length > 0 ? ['The whole report is attached.'] : []),
          `You receive this report because ${person?.name ?? 'somebody'} of ${owner} has it mailed to you. End these mails: ${end}`,
        ],
      })
      return {
        ...written,
        to: { name: '', address: to },
        fromName: owner,
        replyTo: person?.email,
        unsubscribe: end,
        attachments: await Promise.all(
          files.map(async ({ name, type, key }) => ({
            name,
            type,
            bytes: await readFile(join(directory, key)),
          })),
        ),
      }
    },

    async 'report-fault'({ payload, personId }) {
      // It was one when it was stored.
      const { reportId, name, sentence } = payload as ReportFaultPayload
      const person = personId === null ? null : await read.findOneBy(tables.people, { id: personId })
      if (!person) return null
      const written = writeMail({
        language: 'en',
        subject: `The report “${name}” could not be mailed`,
        blocks: textFromPlain(
          `The report “${name}” could not be made, and nobody was mailed.\n\n${sentence}`,
        ),
        action: { label: 'Open the report', address: `${addresses.office}/reports/${String(reportId)}` },
        notes: [
          'You receive this mail because you have this report mailed. It is tried again when it is due next.',
        ],
      })
      return { ...written, to: { name: person.name, address: person.email }, fromName: 'Flimbo' }
    },
  }
}
