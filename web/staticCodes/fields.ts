import type { Content, ContentKind } from '@flimbo/core/contents'

/** One field of a content, as its form shows it. */
export interface Field {
  readonly name: string
  readonly label: string
  /** What it is for, or how it is written. */
  readonly hint?: string
  readonly as: 'line' | 'lines' | 'degrees' | 'moment' | 'check' | 'choice' | 'money'
  readonly choices?: readonly { readonly value: string; readonly words: string }[]
}

const line = (name: string, label: string, hint?: string): Field => ({
  name,
  label,
  as: 'line',
  ...(hint ? { hint } : {}),
})
const lines = (name: string, label: string, hint?: string): Field => ({
  ...line(name, label, hint),
  as: 'lines',
})

interface Form {
  /** What a phone does with it. */
  readonly does: string
  readonly fields: readonly Field[]
  /** How the same is had as something that can be changed and counted; empty where there is no way. */
  readonly dynamic: string
}

const ADDRESS =
  'A dynamic code leads to the same address, and can be changed and counted after it is printed.'
const PAGE = 'A dynamic code can lead to a page of yours that shows the same, and be changed and counted.'

/** The forms of what static codes carry. */
export const FORMS: Readonly<Record<ContentKind, Form>> = {
  address: {
    does: 'Phones open it in their browser.',
    fields: [line('address', 'Address', 'Whole, with https://')],
    dynamic: ADDRESS,
  },
  text: {
    does: 'Phones show it, and offer to copy it.',
    fields: [lines('text', 'Text')],
    dynamic: PAGE,
  },
  phone: {
    does: 'Phones offer to call it.',
    fields: [line('number', 'Number', 'With the country’s code, such as +49 30 1234567')],
    dynamic: PAGE,
  },
  sms: {
    does: 'Phones open a message to the number.',
    fields: [
      line('number', 'Number', 'With the country’s code'),
      lines('body', 'Message', 'What the message begins with'),
    ],
    dynamic: PAGE,
  },
  email: {
    does: 'Phones open a mail to the address.',
    fields: [line('to', 'To'), line('subject', 'Subject'), lines('body', 'Text')],
    dynamic: PAGE,
  },
  place: {
    does: 'Phones show it on their map.',
    fields: [
      { name: 'latitude', label: 'Latitude', as: 'degrees', hint: 'Degrees, north is positive' },
      { name: 'longitude', label: 'Longitude', as: 'degrees', hint: 'Degrees, east is positive' },
      line('label', 'Name', 'Not every phone shows it'),
    ],
    dynamic: ADDRESS,
  },
  contact: {
    does: 'Phones offer to add it to their address book.',
    fields: [
      line('given', 'Given name'),
      line('family', 'Family name'),
      line('organisation', 'Organisation'),
      line('role', 'Role'),
      line('phone', 'Telephone'),
      line('mobile', 'Mobile'),
      line('email', 'E-mail'),
      line('web', 'Web address'),
      line('street', 'Street'),
      line('postcode', 'Postcode'),
      line('town', 'Town'),
      line('country', 'Country'),
      lines('note', 'Note'),
      {
        name: 'version',
        label: 'Written as',
        as: 'choice',
        choices: [
          { value: '3.0', words: 'vCard 3.0, read by most phones' },
          { value: '4.0', words: 'vCard 4.0' },
        ],
      },
    ],
    dynamic: PAGE,
  },
  event: {
    does: 'Phones offer to add it to their calendar.',
    fields: [
      line('title', 'Title'),
      { name: 'start', label: 'Begins', as: 'moment' },
      { name: 'end', label: 'Ends', as: 'moment' },
      { name: 'allDay', label: 'All day', as: 'check' },
      line('place', 'Place'),
      lines('description', 'Description'),
      line('web', 'Web address'),
    ],
    dynamic: PAGE,
  },
  wifi: {
    does: 'Phones offer to join it.',
    fields: [
      line('name', 'Network', 'Exactly as it is announced (SSID)'),
      {
        name: 'security',
        label: 'Security',
        as: 'choice',
        choices: [
          { value: 'WPA', words: 'WPA, WPA2 or WPA3' },
          { value: 'WEP', words: 'WEP' },
          { value: 'nopass', words: 'none' },
        ],
      },
      line('password', 'Password', 'Whoever has the code has it'),
      { name: 'hidden', label: 'Hidden', as: 'check', hint: 'The network does not announce its name' },
    ],
    dynamic: '',
  },
  transfer: {
    does: 'Banking apps fill in a transfer.',
    fields: [
      line('name', 'To', 'At most 70 characters'),
      line('iban', 'IBAN'),
      line('bic', 'BIC', 'Only where a bank outside the EEA asks for it'),
      { name: 'cents', label: 'Amount', as: 'money', hint: 'Euro; empty where the payer decides' },
      line('purpose', 'Purpose', 'A code of up to four letters'),
      line('reference', 'Reference', 'A creditor reference, such as RF18…; or else a text'),
      line('remittance', 'Text', 'At most 140 characters'),
    ],
    dynamic: '',
  },
  payment: {
    does: 'Wallets fill in a payment.',
    fields: [
      line('scheme', 'Scheme', 'Such as bitcoin'),
      line('address', 'Address'),
      line('amount', 'Amount', 'Whole coins, with a point'),
      line('label', 'Label'),
      line('message', 'Message'),
    ],
    dynamic: '',
  },
}

/** An empty content of a kind: what a form begins with. `day` is a calendar day for events, `zone` the campaign's. */
export function emptyContent(kind: ContentKind, day: string, zone: string): Content {
  switch (kind) {
    case 'address':
      return { kind, address: '' }
    case 'text':
      return { kind, text: '' }
    case 'phone':
      return { kind, number: '' }
    case 'sms':
      return { kind, number: '', body: '' }
    case 'email':
      return { kind, to: '', subject: '', body: '' }
    case 'place':
      return { kind, latitude: 0, longitude: 0, label: '' }
    case 'contact':
      return {
        kind,
        version: '3.0',
        given: '',
        family: '',
        organisation: '',
        role: '',
        phone: '',
        mobile: '',
        email: '',
        web: '',
        street: '',
        postcode: '',
        town: '',
        country: '',
        note: '',
      }
    case 'event':
      return {
        kind,
        title: '',
        start: `${day}T10:00`,
        end: `${day}T11:00`,
        allDay: false,
        zone,
        place: '',
        description: '',
        web: '',
      }
    case 'wifi':
      return { kind, security: 'WPA', name: '', password: '', hidden: false }
    case 'transfer':
      return { kind, name: '', iban: '', bic: '', cents: null, purpose: '', reference: '', remittance: '' }
    case 'payment':
      return { kind, scheme: 'bitcoin', address: '', amount: '', label: '', message: '' }
  }
}
