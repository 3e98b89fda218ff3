import { type Span } from '@flimbo/core/time'
import type Sqlite from 'better-sqlite3'
import type { Results, Share } from '@flimbo/core/results'
import { primaryLanguage } from '@flimbo/core/scans'
import { scopeCondition, type Within } from './quarters.ts'

export const CITIES_MAX = 200

interface Counted {
  scans: number
  uniques: number
}

/** Sums rows that share a key; the largest first, equals by key. */
function fold<T extends Counted>(rows: readonly T[], keyOf: (row: T) => string): Share[] {
  const shares = new Map<string, Share>()
  for (const row of rows) {
    const key = keyOf(row)
    const share = shares.get(key) ?? { key, scans: 0, uniques: 0 }
    share.scans += row.scans
    share.uniques += row.uniques
    shares.set(key, share)
  }
  return [...shares.values()].sort(bySize)
}

const bySize = (a: Share, b: Share) => b.scans - a.scans || (a.key < b.key ? -1 : 1)

interface PlaceRow extends Counted {
  country: string
  region: string
  city: string
  latitude: number | null
  longitude: number | null
}
interface AgentRow extends Counted {
  device: string
  system: string
  browser: string
}
interface LanguageRow extends Counted {
  language: string
}

/** Cities by name within their region; a city stands where most of its scans do. */
function foldCities(rows: readonly PlaceRow[]): Results['cities'] {
  const cities = new Map<string, Results['cities'][number] & { most: number }>()
  for (const { country, region, city, latitude, longitude, scans, uniques } of rows) {
    const key = [country, region, city].join('\u0000')
    const known = cities.get(key) ?? {
      key: city,
      country,
      region,
      latitude,
      longitude,
      scans: 0,
      uniques: 0,
      most: 0,
    }
    if (scans > known.most) Object.assign(known, { latitude, longitude, most: scans })
    known.scans += scans
    known.uniques += uniques
    cities.set(key, known)
  }
  return [...cities.values()].map(({ most: _most, ...city }) => city).sort(bySize)
}

/** Who scanned: places, devices and languages of a scope's counted scans in a span. */
export function breakdown(database: Sqlite.Database) {
  return (scope: Within, { start, end }: Span) => {
    const { condition, value } = scopeCondition(scope)
    const group = (columns: string, join: string, by: string) =>
      database
        .prepare(
          `SELECT ${columns}, count(*) AS scans, sum(isUnique) AS uniques FROM scans ${join}
        WHERE apart IS NULL AND codeId IN (SELECT id FROM codes WHERE ${condition}) AND at >= ? AND at < ? GROUP BY ${by}`,
        )
        .all(value, start, end)
    const places = group(
      'country, region, city, latitude, longitude',
      'JOIN places ON places.id = placeId',
      'placeId',
    ) as PlaceRow[]
    const agents = group(
      'device, system, browser',
      'JOIN agents ON agents.id = agentId',
      'agentId',
    ) as AgentRow[]
    const languages = group('language', '', 'language') as LanguageRow[]
    const cities = foldCities(places)
    return {
      countries: fold(places, (row) => row.country),
      cities: cities.slice(0, CITIES_MAX),
      citiesTotal: cities.length,
      devices: fold(agents, (row) => row.device),
      systems: fold(agents, (row) => row.system),
      browsers: fold(agents, (row) => row.browser),
      languages: fold(languages, (row) => primaryLanguage(row.language)),
    }
  }
}
