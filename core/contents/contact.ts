import ICAL from 'ical.js'
import type { ContentOf } from './content.ts'
import { phoneDigits } from './phone.ts'

/** A line of a vCard or calendar, without the breaks that only mail needs: they would make the symbol denser. */
export function propertyLine(
  set: 'vcard' | 'vcard3' | 'icalendar',
  name: string,
  type: string,
  value: string | readonly string[],
): string {
  return ICAL.stringify.property([name, {}, type, value], ICAL.design[set], true)
}

/** A contact as a vCard (RFC 6350, or RFC 2426 for version 3.0). */
export function writeContact(contact: ContentOf<'contact'>): string {
  const { version, given, family, organisation, role, phone, mobile, email, web, note } = contact
  const set = version === '4.0' ? 'vcard' : 'vcard3'
  const text = (name: string, value: string) =>
    value.trim() === '' ? [] : [propertyLine(set, name, 'text', value.trim())]
  const fullName = [given, family]
    .map((each) => each.trim())
    .filter(Boolean)
    .join(' ')
  return [
    'BEGIN:VCARD',
    `VERSION:${version}`,
    // The older version needs it; the newer need not have it where it would be empty.
    ...(fullName !== '' || version === '3.0'
      ? [propertyLine(set, 'n', 'text', [family.trim(), given.trim(), '', '', ''])]
      : []),
    ...text('fn', fullName || organisation),
    ...(organisation.trim() === '' ? [] : [propertyLine(set, 'org', 'text', [organisation.trim()])]),
    ...text('title', role),
    // Digits and a plus need no escaping.
    ...(phone === '' ? [] : [`TEL:${phoneDigits(phone)}`]),
    ...(mobile === '' ? [] : [`TEL;TYPE=CELL:${phoneDigits(mobile)}`]),
    ...text('email', email),
    ...(web.trim() === '' ? [] : [propertyLine(set, 'url', 'uri', web.trim())]),
    ...addressLine(contact, set),
    ...text('note', note),
    'END:VCARD',
  ].join('\r\n')
}

/** Post office box and extended address stay empty, as both RFCs ask. */
function addressLine({ street, town, postcode, country }: ContentOf<'contact'>, set: 'vcard' | 'vcard3') {
  const parts = ['', '', street, town, '', postcode, country].map((part) => part.trim())
  return parts.every((part) => part === '') ? [] : [propertyLine(set, 'adr', 'text', parts)]
}
