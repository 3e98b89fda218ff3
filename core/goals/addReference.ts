import { REFERENCE_PARAMETER } from './hits.ts'

/**
 * An address that names a scan to its site, in a parameter of its own behind all others; what it had of that name is
 * replaced. Addresses that are not of the web stay as they are.
 *
 * @param address as the WHATWG URL Standard writes it
 * @param reference of signs that need no escape
 */
export function addReference(address: string, reference: string): string {
  if (!/^https?:\/\//i.test(address)) return address
  const hash = address.indexOf('#')
  const [front, fragment] = hash < 0 ? [address, ''] : [address.slice(0, hash), address.slice(hash)]
  const mark = front.indexOf('?')
  const path = mark < 0 ? front : front.slice(0, mark)
  const others = (mark < 0 ? '' : front.slice(mark + 1))
    .split('&')
    .filter((each) => each !== '' && each.split('=')[0] !== REFERENCE_PARAMETER)
  return `${path}?${[...others, `${REFERENCE_PARAMETER}=${reference}`].join('&')}${fragment}`
}
