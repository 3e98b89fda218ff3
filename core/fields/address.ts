import { hasControlCharacters } from '../api/index.ts'
import { readDestination } from '../routing/index.ts'

/** Schemes that phones open beside the web's: telephone, message, mail, place (RFC 3966, 5724, 6068, 5870). */
const DEVICE_SCHEMES = /^(tel|sms|mailto|geo):\S+$/i

/** Whether an address is for the phone itself, and no web page: such are neither tagged nor checked over the network. */
export const isDeviceAddress = (address: string): boolean => DEVICE_SCHEMES.test(address.trim())

/** What is wrong with where a link of a page leads, as a sentence; null where nothing is. */
export function linkFault(address: string): string | null {
  if (isDeviceAddress(address)) {
    return hasControlCharacters(address) ? 'Take control characters out of the address.' : null
  }
  const reading = readDestination(address)
  return reading.ok ? null : reading.sentence
}

/** A link's address as it is kept and sent: a site without its scheme is a web address. */
export function linkAddress(address: string): string {
  if (isDeviceAddress(address)) return address.trim()
  const reading = readDestination(address)
  return reading.ok ? reading.text : ''
}
