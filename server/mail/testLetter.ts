import { textFromPlain } from '@flimbo/core/fields'
import { writeMail } from '@flimbo/core/mail'
import { tables, type Database } from '../database/index.ts'
import type { WriteLetter } from './delivery.ts'

/** Writes the mail by which somebody sees that mail works. */
export function testLetter({ read }: Pick<Database, 'read'>, officeAddress: () => string): WriteLetter {
  return async ({ personId }) => {
    const person = personId === null ? null : await read.findOneBy(tables.people, { id: personId })
    return (
      person && {
        to: { name: person.name, address: person.email },
        fromName: 'Flimbo',
        ...writeMail({
          language: 'en',
          subject: 'Mail works',
          blocks: textFromPlain('Flimbo can send mail. You asked for this one under Settings.'),
          action: { label: 'Open Flimbo', address: officeAddress() },
          notes: [],
        }),
      }
    )
  }
}
