import type { ContentKind } from './content.ts'

/** What kinds of contents are called. */
export const CONTENT_WORDS: Readonly<Record<ContentKind, string>> = {
  address: 'Web address',
  text: 'Text',
  phone: 'Telephone number',
  sms: 'Text message',
  email: 'E-mail',
  place: 'Place on a map',
  contact: 'Contact',
  event: 'Calendar event',
  wifi: 'Wi-Fi network',
  transfer: 'SEPA transfer',
  payment: 'Payment address',
}
