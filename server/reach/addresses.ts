import { BlockList, isIP } from 'node:net'
import ipaddr from 'ipaddr.js'

/** IPv4 blocks that are not globally reachable, or are for no single host (IANA IPv4 Special-Purpose Address Registry, RFC 6890; RFC 5771). */
const V4 = [
  '0.0.0.0/8',
  '10.0.0.0/8',
  '100.64.0.0/10',
  '127.0.0.0/8',
  '169.254.0.0/16',
  '172.16.0.0/12',
  '192.0.0.0/24',
  '192.0.2.0/24',
  '192.31.196.0/24',
  '192.52.193.0/24',
  '192.88.99.0/24',
  '192.168.0.0/16',
  '192.175.48.0/24',
  '198.18.0.0/15',
  '198.51.100.0/24',
  '203.0.113.0/24',
  '224.0.0.0/3',
]

/**
 * The same of IPv6 (IANA IPv6 Special-Purpose Address Registry), with the whole of ::/96 and fec0::/10, which nobody
 * should use any more, and whatever carries an IPv4 address that the translator behind it would reach.
 */
const V6 = [
  '::/96',
  '64:ff9b:1::/48',
  '100::/64',
  '100:0:0:1::/64',
  '2001::/23',
  '2001:2::/48',
  '2001:db8::/32',
  '2620:4f:8000::/48',
  '3fff::/20',
  '5f00::/16',
  'fc00::/7',
  'fe80::/10',
  'fec0::/10',
  'ff00::/8',
]

function blockList(): BlockList {
  const list = new BlockList()
  for (const [type, blocks] of [
    ['ipv4', V4],
    ['ipv6', V6],
  ] as const) {
    for (const block of blocks) {
      const [network = '', bits = ''] = block.split('/')
      list.addSubnet(network, Number(bits), type)
    }
  }
  return list
}

const SPECIAL = blockList()

/** The IPv4 address that an IPv6 one stands for: mapped, translated by NAT64 (RFC 6052) or wrapped by 6to4 (RFC 3056); null where it stands for none. */
function v4Within(address: string): string | null {
  const parsed = ipaddr.IPv6.parse(address)
  const bytes = parsed.toByteArray()
  const at = (start: number) => bytes.slice(start, start + 4).join('.')
  if (parsed.isIPv4MappedAddress() || parsed.range() === 'rfc6052') return at(12)
  return parsed.range() === '6to4' ? at(2) : null
}

/**
 * Whether an address lies in the public internet: not private, loopback, link-local, shared or otherwise
 * special, nor an IPv6 form of such an IPv4 address.
 */
export function isPublicAddress(address: string): boolean {
  const version = isIP(address)
  if (version === 0) return false
  if (version === 4) return !SPECIAL.check(address, 'ipv4')
  const withoutZone = address.replace(/%.*$/, '')
  const within = v4Within(withoutZone)
  return within === null ? !SPECIAL.check(withoutZone, 'ipv6') : !SPECIAL.check(within, 'ipv4')
}
