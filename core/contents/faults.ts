import { readUrl } from '../api/index.ts'
import { bytesOf } from './bytes.ts'
import type { Content, ContentOf } from './content.ts'
import { ibanDigits, isCreditorReference, isIban } from './iban.ts'
import { phoneFault } from './phone.ts'

/** What is wrong with one field of a content, as a sentence that says what to do. */
export interface ContentFault {
  readonly field: string
  readonly sentence: string
}

type Checks<K extends Content['kind']> = (content: ContentOf<K>) => (ContentFault | null)[]

const fault = (field: string, sentence: string | null): ContentFault | null =>
  sentence === null ? null : { field, sentence }
const missing = (field: string, value: string, sentence: string) =>
  fault(field, value.trim() === '' ? sentence : null)

/** What speaks against a content by its standard; empty where nothing does. */
export function contentFaults(content: Content): ContentFault[] {
  const check = CHECKS[content.kind] as Checks<Content['kind']>
  return check(content).filter((found) => found !== null)
}

const CHECKS: { readonly [K in Content['kind']]: Checks<K> } = {
  address: ({ address }) => [fault('address', addressFault(address))],
  text: ({ text }) => [missing('text', text, 'Write the text that phones are to show.')],
  phone: ({ number }) => [fault('number', phoneFault(number))],
  sms: ({ number }) => [fault('number', phoneFault(number))],
  email: ({ to }) => [fault('to', mailFault(to, 'Give the mail address it is written to.'))],
  // RFC 5870, section 3.4.2: at a pole there is one longitude.
  place: ({ latitude, longitude }) => [
    fault('longitude', Math.abs(latitude) === 90 && longitude !== 0 ? 'At a pole the longitude is 0.' : null),
  ],
  contact: contactFaults,
  event: eventFaults,
  wifi: wifiFaults,
  transfer: transferFaults,
  payment: paymentFaults,
}

function addressFault(address: string): string | null {
  if (address.trim() === '') return 'Give the web address.'
  const url = readUrl(address.trim())
  if (!url) return 'This is not a whole web address: begin with https://.'
  return null
}

/** The form of a mail address that every system takes: one @, a host with a point (RFC 5321, section 4.1.2). */
export function mailFault(address: string, ifEmpty: string | null): string | null {
  const trimmed = address.trim()
  if (trimmed === '') return ifEmpty
  if (/[\s,;<>]/.test(trimmed)) return 'Give one mail address alone, such as info@saltmarsh.example.'
  const [, local = '', host = ''] = /^(.*)@(.*)$/.exec(trimmed) ?? []
  if (local === '' || local.length > 64 || !/^[^.\s]+(\.[^.\s]+)+$/.test(host))
    return 'This is not a whole mail address, such as info@saltmarsh.example.'
  return null
}

/** Parts of a line of a contact, where readers take what follows a backslash in different ways. */
const CONTACT_PARTS = ['given', 'family', 'organisation', 'street', 'postcode', 'town', 'country'] as const

function contactFaults(contact: ContentOf<'contact'>) {
  const { given, family, organisation, phone, mobile, email, web } = contact
  const nobody = [given, family, organisation].every((each) => each.trim() === '')
  return [
    fault('family', nobody ? 'Give a name, or an organisation: phones file contacts by it.' : null),
    ...CONTACT_PARTS.map((field) =>
      fault(
        field,
        contact[field].includes('\\') ? 'Phones read a backslash in different ways: leave it out.' : null,
      ),
    ),
    fault('phone', phone === '' ? null : phoneFault(phone)),
    fault('mobile', mobile === '' ? null : phoneFault(mobile)),
    fault('email', mailFault(email, null)),
    fault('web', web === '' ? null : addressFault(web)),
  ]
}

function eventFaults({ title, start, end, allDay, web }: ContentOf<'event'>) {
  const isBefore = allDay ? end.slice(0, 10) < start.slice(0, 10) : end <= start
  return [
    missing('title', title, 'Give the event a title.'),
    fault('end', isBefore ? 'The end is after the beginning: change one of them.' : null),
    fault('web', web === '' ? null : addressFault(web)),
  ]
}

const NETWORK_BYTES_MAX = 32
const PASSPHRASE_MIN = 8
const PASSPHRASE_MAX = 63

/** IEEE 802.11: names of up to 32 bytes, passphrases of 8 to 63 printable ASCII signs or 64 hexadecimal digits. From memory. */
function wifiFaults({ security, name, password }: ContentOf<'wifi'>) {
  return [
    missing('name', name, 'Give the network’s name (SSID), exactly as it is announced.'),
    fault(
      'name',
      bytesOf(name) > NETWORK_BYTES_MAX
        ? `A network’s name has at most ${String(NETWORK_BYTES_MAX)} bytes; this has ${String(bytesOf(name))}.`
        : null,
    ),
    fault('password', passwordFault(security, password)),
  ]
}

function passwordFault(security: ContentOf<'wifi'>['security'], password: string): string | null {
  if (security === 'nopass') return null
  if (password === '') return 'Give the password, or choose “No password”.'
  if (security === 'WEP') return null
  if (/^[0-9a-f]{64}$/i.test(password)) return null
  if (!/^[\x20-\x7e]*$/.test(password)) return 'Passwords of networks have plain signs only: no ä, no é.'
  if (password.length < PASSPHRASE_MIN || password.length > PASSPHRASE_MAX)
    return `Passwords of networks have ${String(PASSPHRASE_MIN)} to ${String(PASSPHRASE_MAX)} signs; this has ${String(password.length)}.`
  return null
}

/** Limits of EPC069-12, from memory. */
const TRANSFER = { name: 70, remittance: 140, cents: 99_999_999_999, bytes: 331 } as const

function transferFaults({ name, iban, bic, cents, purpose, reference, remittance }: ContentOf<'transfer'>) {
  const bank = ibanDigits(bic)
  return [
    missing('name', name, 'Give the name of who is paid, as the bank has it.'),
    fault(
      'name',
      name.length > TRANSFER.name ? `Banks take ${String(TRANSFER.name)} signs of a name; shorten it.` : null,
    ),
    fault('iban', ibanFault(iban)),
    fault(
      'bic',
      bank === '' || /^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/.test(bank)
        ? null
        : 'A BIC has 8 or 11 letters and digits; within the euro area it may be left out.',
    ),
    fault(
      'cents',
      cents !== null && (cents < 1 || cents > TRANSFER.cents)
        ? 'Give an amount from 0.01 to 999,999,999.99 euros, or leave it open.'
        : null,
    ),
    fault(
      'purpose',
      /^([A-Z]{1,4})?$/i.test(purpose) ? null : 'A purpose is a code of up to four letters, such as CHAR.',
    ),
    fault(
      'reference',
      reference === '' || isCreditorReference(reference)
        ? null
        : 'A creditor reference begins with RF and two check digits, which do not fit here: look for a slip, or write it as a text.',
    ),
    fault(
      'remittance',
      reference !== '' && remittance !== '' ? 'Give a reference or a text: banks take one of them.' : null,
    ),
    fault(
      'remittance',
      remittance.length > TRANSFER.remittance
        ? `Banks take ${String(TRANSFER.remittance)} signs; shorten the text.`
        : null,
    ),
    ...[name, remittance].map((value, i) =>
      fault(['name', 'remittance'][i] ?? '', /[\r\n]/.test(value) ? 'Write it in one line.' : null),
    ),
  ]
}

function ibanFault(iban: string): string | null {
  if (iban.trim() === '') return 'Give the account number (IBAN) that is paid to.'
  return isIban(iban) ? null : 'The check digits of this IBAN do not fit: look for a slip or swapped digits.'
}

function paymentFaults({ scheme, address, amount }: ContentOf<'payment'>) {
  return [
    fault(
      'scheme',
      /^[a-z][a-z0-9+.-]*$/i.test(scheme) ? null : 'Give the scheme of the payment, such as bitcoin.',
    ),
    missing('address', address, 'Give the address that is paid to.'),
    fault(
      'address',
      /^[A-Za-z0-9]*$/.test(address.trim()) ? null : 'An address of this kind has letters and digits alone.',
    ),
    // BIP 21: digits with a point, never a comma or an exponent.
    fault(
      'amount',
      amount === '' || (/^(\d+\.?\d*|\.\d+)$/.test(amount) && Number(amount) > 0)
        ? null
        : 'Write the amount in digits with a point, such as 0.0025, or leave it open.',
    ),
  ]
}
