import { NOWHERE, type Place } from '@flimbo/core/scans'

/** The city database as its package has it: flatter than the reader's own types say. */
export interface CityEntry {
  readonly country_code?: string
  readonly state1?: string
  readonly city?: string
  readonly latitude?: number
  readonly longitude?: number
}

/** The database keeps single-precision degrees; four decimals are all they say. */
const degrees = (value: number | undefined) => (value === undefined ? null : Math.round(value * 1e4) / 1e4)

/** A record of the database as scans and the list of cities spell it. */
export function readEntry(entry: CityEntry | null): Place {
  if (!entry?.country_code) return NOWHERE
  return {
    country: entry.country_code,
    region: entry.state1 ?? '',
    // Large cities come with a district, "Hanover (Linden)", which a network address cannot really tell.
    city: (entry.city ?? '').replace(/ \(.*\)$/, ''),
    latitude: degrees(entry.latitude),
    longitude: degrees(entry.longitude),
  }
}
