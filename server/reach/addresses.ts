import ipaddr from 'ipaddr.js'

/**
 * Whether an address lies in the public internet: not private, loopback, link-local, shared or otherwise
 * special (IANA special-purpose address registries), nor an IPv6 form of such an IPv4 address.
 */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return false
  return ipaddr.process(address).range() === 'unicast'
}
