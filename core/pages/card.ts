import { foldedLines, phoneDigits, propertyLine } from '../contents/index.ts'
import { contactName } from './draw/people.ts'
import { linkAddress, said } from '../fields/index.ts'
import type { PartOf } from './parts.ts'

/** A portrait as it stands in a vCard. */
export interface CardPhoto {
  readonly type: 'image/jpeg'
  readonly base64: string
}

interface Reader {
  readonly language: string
  readonly languages: readonly string[]
}

const TYPES = { work: 'WORK', cell: 'CELL', home: 'HOME' } as const

/**
 * A contact as a vCard that phones take: RFC 6350, or RFC 2426 for version 3.0, which more of them read. Lines are folded at
 * 75 octets, as both RFCs ask.
 */
export function contactCard(
  contact: PartOf<'contact'>,
  version: '3.0' | '4.0',
  reader: Reader,
  photo: CardPhoto | null = null,
): string {
  const set = version === '4.0' ? 'vcard' : 'vcard3'
  const text = (name: string, value: string) =>
    value.trim() === '' ? [] : [propertyLine(set, name, 'text', value.trim())]
  const { given, family, role, organisation, phones, emails, addresses, sites, note } = contact
  const lines = [
    'BEGIN:VCARD',
    `VERSION:${version}`,
    propertyLine(set, 'n', 'text', [family.trim(), given.trim(), '', '', '']),
    propertyLine(set, 'fn', 'text', contactName(contact)),
    ...(organisation.trim() === '' ? [] : [propertyLine(set, 'org', 'text', [organisation.trim()])]),
    ...text('title', said(reader, role).text),
    ...phones.map(({ kind, number }) => `TEL;TYPE=${TYPES[kind]}:${phoneDigits(number)}`),
    ...emails.flatMap(({ address }) => text('email', address)),
    ...addresses.flatMap(({ street, postcode, town, country }) => {
      const parts = ['', '', street, town, '', postcode, country].map((each) => each.trim())
      return parts.every((each) => each === '') ? [] : [propertyLine(set, 'adr', 'text', parts)]
    }),
    ...sites.flatMap(({ address }) => {
      const written = linkAddress(address)
      return written === '' ? [] : [propertyLine(set, 'url', 'uri', written)]
    }),
    ...text('note', said(reader, note).text),
    ...(photo ? [photoLine(photo, version)] : []),
    'END:VCARD',
  ]
  return foldedLines(lines)
}

function photoLine({ type, base64 }: CardPhoto, version: '3.0' | '4.0'): string {
  return version === '4.0'
    ? `PHOTO:data:${type};base64,${base64}`
    : `PHOTO;ENCODING=b;TYPE=${type === 'image/jpeg' ? 'JPEG' : type}:${base64}`
}
