import { describe, expect, it } from 'vitest'
import { isPublicAddress } from './index.ts'

// IANA IPv4 and IPv6 Special-Purpose Address Registries, and the RFCs they name.
describe('an address that is not in the public internet', () => {
  it.each([
    '127.0.0.1',
    '10.0.0.1',
    '172.16.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '198.18.0.1',
    '198.19.255.254',
    '192.0.2.1',
    '203.0.113.1',
    '224.0.0.1',
    '255.255.255.255',
    '240.0.0.1',
    '::',
    '::1',
    '::7f00:1',
    '::ffff:127.0.0.1',
    '::ffff:a00:1',
    '64:ff9b::7f00:1',
    '64:ff9b:1::1',
    '100::1',
    '2001:2::1',
    '2001:db8::1',
    '2002:7f00:1::',
    '3fff::1',
    '5f00::1',
    'fc00::1',
    'fd12::1',
    'fe80::1',
    'fe80::1%eth0',
    'fec0::1',
    'ff02::1',
    '2001::1',
  ])('%s is not reached', (address) => {
    expect(isPublicAddress(address)).toBe(false)
  })
  it.each([
    '8.8.8.8',
    '198.20.0.1',
    '172.32.0.1',
    '2a00:1450::1',
    '::ffff:8.8.8.8',
    '64:ff9b::808:808',
    '2002:808:808::1',
    '2400::1',
  ])('%s is one', (address) => {
    expect(isPublicAddress(address)).toBe(true)
  })
  it.each(['', 'localhost', '1.2.3', '::g', '300.1.1.1'])('%j is no address', (address) => {
    expect(isPublicAddress(address)).toBe(false)
  })
})
