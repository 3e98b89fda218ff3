import ICAL from 'ical.js'
import type { Content, ContentOf } from './content.ts'

/**
 * What a phone makes of the text of a symbol: the way back from `writeContent`. Times come back in UTC, telephone
 * numbers as their digits.
 */
export function readContent(text: string): Content {
  for (const [beginning, read] of READERS) {
    if (!beginning.test(text)) continue
    const found = attempt(() => read(text))
    if (found) return found
  }
  return { kind: 'text', text }
}

/** What is broken is shown as the text it is, as phones do. */
function attempt(read: () => Content | null): Content | null {
  try {
    return read()
  } catch {
    return null
  }
}

const READERS: readonly (readonly [beginning: RegExp, read: (text: string) => Content | null])[] = [
  [/^https?:\/\//i, (text) => ({ kind: 'address', address: text })],
  [/^tel:/i, (text) => ({ kind: 'phone', number: partsOf(text).path })],
  [/^sms:/i, (text) => readSms(text)],
  [/^mailto:/i, (text) => readMail(text)],
  [/^geo:/i, (text) => readPlace(text)],
  [/^WIFI:/i, (text) => readWifi(text)],
  [/^BEGIN:VCARD/i, (text) => readContact(text)],
  [/^BEGIN:VCALENDAR/i, (text) => readEvent(text)],
  [/^BCD\r?\n/, (text) => readTransfer(text)],
  [/^[a-z][a-z0-9+.-]*:[a-z0-9]{20,}(\?|$)/i, (text) => readPayment(text)],
]

/** A URI of the kind `scheme:path?name=value&…` (RFC 3986); names in small letters. */
function partsOf(uri: string) {
  const [, scheme = '', path = '', query = ''] = /^([^:]*):([^?]*)\??(.*)$/s.exec(uri) ?? []
  const values = query.split('&').map((pair) => {
    const at = pair.indexOf('=')
    return [pair.slice(0, at).toLowerCase(), decodeURIComponent(pair.slice(at + 1))] as const
  })
  return { scheme: scheme.toLowerCase(), path, query: Object.fromEntries(values) as Record<string, string> }
}

function readSms(text: string): ContentOf<'sms'> {
  const { path, query } = partsOf(text)
  return { kind: 'sms', number: path, body: query.body ?? '' }
}

function readMail(text: string): ContentOf<'email'> {
  const { path, query } = partsOf(text)
  return {
    kind: 'email',
    to: decodeURIComponent(path),
    subject: query.subject ?? '',
    body: (query.body ?? '').replace(/\r\n/g, '\n'),
  }
}

function readPlace(text: string): ContentOf<'place'> | null {
  const { path, query } = partsOf(text)
  const [latitude, longitude] = path.split(';', 1)[0]?.split(',').map(Number) ?? []
  if (latitude === undefined || longitude === undefined) return null
  if (!(Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180)) return null
  const [, label = ''] = /^[^(]*\((.*)\)$/s.exec(query.q ?? '') ?? []
  return { kind: 'place', latitude, longitude, label }
}

/** Fields up to an unescaped semicolon, each a letter, a colon and a value. */
function readWifi(text: string): ContentOf<'wifi'> {
  const fields = new Map(
    [...text.slice('WIFI:'.length).matchAll(/([A-Z]):((?:\\.|[^\\;])*);/gis)].map(
      ([, name = '', value = '']) => [name.toUpperCase(), value.replace(/\\(.)/gs, '$1')] as const,
    ),
  )
  const security = fields.get('T')
  return {
    kind: 'wifi',
    security: security === 'WEP' || security === 'WPA' ? security : 'nopass',
    name: fields.get('S') ?? '',
    password: fields.get('P') ?? '',
    hidden: fields.get('H') === 'true',
  }
}

function readContact(text: string): ContentOf<'contact'> {
  const card = new ICAL.Component(ICAL.parse(text) as unknown[])
  const value = (name: string) => asText(card.getFirstPropertyValue(name))
  const numbers = card.getAllProperties('tel')
  const isMobile = (property: (typeof numbers)[number]) =>
    asText(property.getParameter('type')).toUpperCase() === 'CELL'
  const numberOf = (mobile: boolean) =>
    asText(numbers.find((each) => isMobile(each) === mobile)?.getFirstValue())
  const [family = '', given = ''] = asParts(card.getFirstPropertyValue('n'))
  const [, , street = '', town = '', , postcode = '', country = ''] = asParts(
    card.getFirstPropertyValue('adr'),
  )
  return {
    kind: 'contact',
    version: value('version') === '4.0' ? '4.0' : '3.0',
    given,
    family,
    organisation: asParts(card.getFirstPropertyValue('org'))[0] ?? '',
    role: value('title'),
    phone: numberOf(false),
    mobile: numberOf(true),
    email: value('email'),
    web: value('url'),
    street,
    postcode,
    town,
    country,
    note: value('note'),
  }
}

const asText = (value: unknown): string => (typeof value === 'string' ? value : '')
const asParts = (value: unknown): string[] =>
  Array.isArray(value)
    ? value.map((part) => (Array.isArray(part) ? part.join(',') : asText(part)))
    : [asText(value)]

function readEvent(text: string): ContentOf<'event'> | null {
  const event = new ICAL.Component(ICAL.parse(text) as unknown[]).getFirstSubcomponent('vevent')
  const [start, end] = [event?.getFirstPropertyValue('dtstart'), event?.getFirstPropertyValue('dtend')]
  if (!event || !(start instanceof ICAL.Time) || !(end instanceof ICAL.Time)) return null
  const value = (name: string) => asText(event.getFirstPropertyValue(name))
  const allDay = start.isDate
  const last = end.clone()
  if (allDay) last.adjust(-1, 0, 0, 0)
  const local = (time: InstanceType<typeof ICAL.Time>) =>
    allDay ? `${time.toString().slice(0, 10)}T00:00` : time.toString().slice(0, 16)
  return {
    kind: 'event',
    title: value('summary'),
    start: local(start),
    end: local(last),
    allDay,
    zone: 'UTC',
    place: value('location'),
    description: value('description'),
    web: value('url'),
  }
}

function readTransfer(text: string): ContentOf<'transfer'> {
  const lines = text.split(/\r?\n/)
  const at = (line: number) => lines[line] ?? ''
  const amount = /^EUR(\d+(?:\.\d+)?)$/.exec(at(7))?.[1]
  return {
    kind: 'transfer',
    bic: at(4),
    name: at(5),
    iban: at(6),
    cents: amount === undefined ? null : Math.round(Number(amount) * 100),
    purpose: at(8),
    reference: at(9),
    remittance: at(10),
  }
}

function readPayment(text: string): ContentOf<'payment'> {
  const { scheme, path, query } = partsOf(text)
  return {
    kind: 'payment',
    scheme,
    address: path,
    amount: query.amount ?? '',
    label: query.label ?? '',
    message: query.message ?? '',
  }
}
