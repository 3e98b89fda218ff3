import type Sqlite from 'better-sqlite3'
import { primaryLanguage } from '@flimbo/core/scans'
import type { DimensionValue } from '@flimbo/core/figures'
import type { ScanDimension as ScanTrait } from '@flimbo/core/dimensions'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import type { ConversionFact } from './conversionFacts.ts'
import { lookUps } from './lookUps.ts'

/** Where a trait stands, and what it is of a value that stands there, or of a lead. */
export interface Trait {
  readonly dimension: ScanDimension
  readonly keyOf: (value: DimensionValue) => string
  readonly ofConversion: (lead: ConversionFact) => string
}

/** Parts of a key that says in what something lies. */
const within = (...parts: readonly (string | number)[]) => parts.join('\t')

/**
 * How each trait is read out of the dimensions of a scan. A region or a city is named with what it lies in, a lane with
 * the route that decided, a variant with its lane; how far a scan was from its piece is no trait of it alone.
 */
export function scanTraits(
  database: Sqlite.Database,
): Readonly<Record<Exclude<ScanTrait, 'distance'> | 'spot', Trait>> {
  const { placeOf, agentOf } = lookUps(database)
  const place = (keyOf: (place: Pick<ConversionFact, 'country' | 'region' | 'city'>) => string): Trait => ({
    dimension: 'place',
    keyOf(value) {
      const row = placeOf(Number(value))
      return row ? keyOf(row) : ''
    },
    ofConversion: keyOf,
  })
  const agent = (name: 'device' | 'system' | 'browser'): Trait => ({
    dimension: 'agent',
    keyOf: (value) => agentOf(Number(value))?.[name] ?? '',
    ofConversion: (lead) => lead[name],
  })
  const way = (
    keyOf: (way: Pick<ConversionFact, 'routeId' | 'outcome' | 'exit' | 'variant'>) => string,
  ): Trait => ({
    dimension: 'way',
    keyOf: (value) => keyOf(readWay(String(value))),
    ofConversion: keyOf,
  })
  const word = (name: 'language' | 'referrer', keyOf: (text: string) => string): Trait => ({
    dimension: name,
    keyOf: (value) => keyOf(String(value)),
    ofConversion: (lead) => keyOf(lead[name]),
  })
  return {
    country: place(({ country }) => country),
    region: place(({ country, region }) => (region === '' ? '' : within(country, region))),
    city: place(({ country, region, city }) => (city === '' ? '' : within(country, region, city))),
    // The very place, by its number: leads do not know it.
    spot: { dimension: 'place', keyOf: String, ofConversion: () => '' },
    device: agent('device'),
    system: agent('system'),
    browser: agent('browser'),
    language: word('language', primaryLanguage),
    referrer: word('referrer', String),
    outcome: way(({ outcome }) => outcome),
    lane: way(({ routeId, exit }) => (exit === '' ? '' : within(routeId, exit))),
    variant: way(({ routeId, exit, variant }) => (variant === '' ? '' : within(routeId, exit, variant))),
  }
}
