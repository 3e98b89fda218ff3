import type Sqlite from 'better-sqlite3'
import { primaryLanguage } from '@flimbo/core/scans'
import type { DimensionValue, Tallied } from '@flimbo/core/figures'
import type { Results, Share } from '@flimbo/core/results'
import { lookUps, type PlaceRow } from './lookUps.ts'

export const CITIES_MAX = 200

interface Sum {
  scans: number
  uniques: number
}

const bySize = (a: Share, b: Share) => b.scans - a.scans || (a.key < b.key ? -1 : 1)

/** Sums by a key; the largest first, equals by key. */
class Shares {
  private readonly byKey = new Map<string, Share>()

  add(key: string, { scans, uniques }: Sum): void {
    const share = this.byKey.get(key)
    if (share) {
      share.scans += scans
      share.uniques += uniques
    } else this.byKey.set(key, { key, scans, uniques })
  }

  sorted(): Share[] {
    return [...this.byKey.values()].sort(bySize)
  }
}

/** A city while it is counted: by name within its region. It stands where most of its scans do; at the first of equals. */
interface CountedCity extends Share {
  place: PlaceRow
  placeId: number
  most: number
}

const cityOf = ({ key, scans, uniques, place }: CountedCity): Results['cities'][number] => ({
  key,
  country: place.country,
  region: place.region,
  latitude: place.latitude,
  longitude: place.longitude,
  scans,
  uniques,
})

/** Counted scans by what they were made in: places and agents by their rows, languages as they are named. */
export interface Made {
  readonly place: Tallied<DimensionValue>
  readonly agent: Tallied<DimensionValue>
  readonly language: Tallied<DimensionValue>
}

/** Says who scanned: places, devices and languages. */
export function breakdown(database: Sqlite.Database) {
  const { placeOf, agentOf } = lookUps(database)

  function placesOf(counted: Tallied<DimensionValue>) {
    const countries = new Shares()
    const cities = new Map<string, CountedCity>()
    for (const [value, { count, uniques }] of counted) {
      const place = placeOf(Number(value))
      if (!place) continue
      countries.add(place.country, { scans: count, uniques })
      const name = [place.country, place.region, place.city].join('\u0000')
      const city = cities.get(name)
      if (!city) {
        cities.set(name, {
          key: place.city,
          scans: count,
          uniques,
          place,
          placeId: Number(value),
          most: count,
        })
        continue
      }
      city.scans += count
      city.uniques += uniques
      if (count < city.most || (count === city.most && Number(value) > city.placeId)) continue
      city.most = count
      city.place = place
      city.placeId = Number(value)
    }
    return {
      countries: countries.sorted(),
      cities: [...cities.values()].sort(bySize).slice(0, CITIES_MAX).map(cityOf),
      citiesTotal: cities.size,
    }
  }

  function agentsOf(counted: Tallied<DimensionValue>) {
    const [devices, systems, browsers] = [new Shares(), new Shares(), new Shares()]
    for (const [value, { count, uniques }] of counted) {
      const agent = agentOf(Number(value))
      if (!agent) continue
      const sum = { scans: count, uniques }
      devices.add(agent.device, sum)
      systems.add(agent.system, sum)
      browsers.add(agent.browser, sum)
    }
    return { devices: devices.sorted(), systems: systems.sorted(), browsers: browsers.sorted() }
  }

  return ({ place, agent, language }: Made) => {
    const languages = new Shares()
    for (const [value, { count, uniques }] of language)
      languages.add(primaryLanguage(String(value)), { scans: count, uniques })
    return { ...placesOf(place), ...agentsOf(agent), languages: languages.sorted() }
  }
}
