import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min'
import { mailFault } from '@flimbo/core/contents'
import type { AnswerReaders } from '@flimbo/core/forms'

const MAIL_MAX = 254

/** A mail address as it is kept: its host in small letters (RFC 5321: hosts are case-insensitive); null where it is none. */
export function readMail(text: string): string | null {
  const address = text.trim()
  if (address.length > MAIL_MAX || mailFault(address, '') !== null) return null
  const at = address.lastIndexOf('@')
  return address.slice(0, at) + address.slice(at).toLowerCase()
}

/** A telephone number as E.164; null where it is none that can be dialled. */
export function readPhone(text: string, country: string): string | null {
  const isKnown = /^[A-Z]{2}$/.test(country)
  // What is no country to the library is none: numbers then begin with +.
  const number = parsePhoneNumberFromString(text, isKnown ? (country as CountryCode) : undefined)
  return number?.isPossible() === true ? number.number : null
}

/** What reads mail addresses and telephone numbers in answers. */
export const answerReaders: Pick<AnswerReaders, 'mail' | 'phone'> = { mail: readMail, phone: readPhone }
