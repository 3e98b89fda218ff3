import { writeContact } from './contact.ts'
import type { Content, ContentOf } from './content.ts'
import { writeEvent } from './event.ts'
import { ibanDigits } from './iban.ts'
import { phoneDigits } from './phone.ts'

/**
 * The text a symbol of a content carries, by the content's standard, as short as that allows. What is faulty is written
 * as well as can be: ask `contentFaults` first.
 */
export function writeContent(content: Content): string {
  switch (content.kind) {
    case 'address':
      return content.address.trim()
    case 'text':
      return content.text
    case 'phone':
      return `tel:${phoneDigits(content.number)}`
    case 'sms':
      return withQuery(`sms:${phoneDigits(content.number)}`, { body: content.body })
    case 'email':
      return withQuery(`mailto:${mailAddress(content.to)}`, {
        subject: content.subject,
        // Lines end as they do in mail (RFC 6068, section 5).
        body: content.body.replace(/\r?\n/g, '\r\n'),
      })
    case 'place':
      return writePlace(content)
    case 'contact':
      return writeContact(content)
    case 'event':
      return writeEvent(content)
    case 'wifi':
      return writeWifi(content)
    case 'transfer':
      return writeTransfer(content)
    case 'payment':
      return withQuery(`${content.scheme.toLowerCase()}:${content.address.trim()}`, {
        amount: content.amount,
        label: content.label,
        message: content.message,
      })
  }
}

/** A part of a URI with everything escaped that RFC 3986 does not let stand there. */
const escaped = (text: string) =>
  encodeURIComponent(text).replace(/[!'()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`)

function withQuery(uri: string, values: Readonly<Record<string, string>>): string {
  const query = Object.entries(values)
    .filter(([, value]) => value !== '')
    .map(([name, value]) => `${name}=${escaped(value)}`)
    .join('&')
  return query === '' ? uri : `${uri}?${query}`
}

/** A mail address for a `mailto` URI: what is no plain sign before the @ is escaped (RFC 6068, section 2). */
function mailAddress(address: string): string {
  const at = address.lastIndexOf('@')
  return `${escaped(address.slice(0, at).trim()).replace(/%2B/g, '+')}@${address.slice(at + 1).trim()}`
}

/** A millionth of a degree is a tenth of a metre: more digits only make the symbol denser. */
const DEGREE_DIGITS = 6
const degrees = (value: number) => String(Number(value.toFixed(DEGREE_DIGITS)))

/** RFC 5870; the label as the query that maps take, which the standard lets stand after it. Common practice, no published source. */
function writePlace({ latitude, longitude, label }: ContentOf<'place'>): string {
  return withQuery(`geo:${degrees(latitude)},${degrees(longitude)}`, {
    q: label === '' ? '' : `${degrees(latitude)},${degrees(longitude)}(${label})`,
  })
}

/** The signs that part the fields of a Wi-Fi string (WPA3 specification, section on URI format, from memory). */
const wifiEscaped = (text: string) => text.replace(/[\\;,:"]/g, '\\$&')

function writeWifi({ security, name, password, hidden }: ContentOf<'wifi'>): string {
  const fields = [
    `T:${security}`,
    `S:${wifiEscaped(name)}`,
    ...(security === 'nopass' ? [] : [`P:${wifiEscaped(password)}`]),
    ...(hidden ? ['H:true'] : []),
  ]
  return `WIFI:${fields.join(';')};;`
}

/** Euros as EPC069-12 writes them: `EUR12.3` and `EUR12` are as good as `EUR12.30`. */
function euros(cents: number): string {
  return `EUR${String(cents / 100)}`
}

/** EPC069-12, version 002, UTF-8; lines that are empty at the end are left out. */
function writeTransfer(content: ContentOf<'transfer'>): string {
  const { name, iban, bic, cents, purpose, reference, remittance } = content
  const lines = [
    'BCD',
    '002',
    '1',
    'SCT',
    bic.replace(/\s/g, '').toUpperCase(),
    name.trim(),
    ibanDigits(iban),
    cents === null ? '' : euros(cents),
    purpose.toUpperCase(),
    reference.replace(/\s/g, '').toUpperCase(),
    remittance.trim(),
  ]
  return lines.join('\n').replace(/\n+$/, '')
}
