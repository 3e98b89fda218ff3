import type Sqlite from 'better-sqlite3'
import { primaryLanguage } from '@flimbo/core/scans'
import type { DimensionValue } from '@flimbo/core/figures'
import type { ScanDimension as ScanTrait } from '@flimbo/core/dimensions'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import type { Conversions, ConversionTraits } from './conversions.ts'
import { lookUps } from './lookUps.ts'

/** Where a trait stands, and what it is of a value that stands there, or of conversions. */
export interface Trait {
  readonly dimension: ScanDimension
  readonly keyOf: (value: DimensionValue) => string
  readonly ofConversions: (conversions: Conversions) => ConversionKeys
}

/** Of each conversion a number, and what those that have it are called. */
export interface ConversionKeys {
  readonly index: Uint32Array
  readonly keyOf: (number: number) => string
}

const conversionKeys =
  <N extends keyof ConversionTraits>(name: N, keyOf: (value: ConversionTraits[N]) => string) =>
  (conversions: Conversions): ConversionKeys => {
    const { values, index } = conversions.trait(name)
    return {
      index,
      keyOf(number) {
        const value = values[number]
        return value === undefined ? '' : keyOf(value)
      },
    }
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
  const place = (keyOf: (place: ConversionTraits['place']) => string): Trait => ({
    dimension: 'place',
    keyOf(value) {
      const row = placeOf(Number(value))
      return row ? keyOf(row) : ''
    },
    ofConversions: conversionKeys('place', keyOf),
  })
  const agent = (name: 'device' | 'system' | 'browser', ofConversions: Trait['ofConversions']): Trait => ({
    dimension: 'agent',
    keyOf: (value) => agentOf(Number(value))?.[name] ?? '',
    ofConversions,
  })
  const way = (keyOf: (way: ConversionTraits['way']) => string): Trait => ({
    dimension: 'way',
    keyOf: (value) => keyOf(readWay(String(value))),
    ofConversions: conversionKeys('way', keyOf),
  })
  const word = (name: 'language' | 'referrer', keyOf: (text: string) => string): Trait => ({
    dimension: name,
    keyOf: (value) => keyOf(String(value)),
    ofConversions: conversionKeys(name, keyOf),
  })
  return {
    country: place(({ country }) => country),
    region: place(({ country, region }) => (region === '' ? '' : within(country, region))),
    city: place(({ country, region, city }) => (city === '' ? '' : within(country, region, city))),
    // The very place, by its number: conversions do not know it.
    spot: { dimension: 'place', keyOf: String, ofConversions: conversionKeys('spot', () => '') },
    device: agent(
      'device',
      conversionKeys('agent', ({ device }) => device),
    ),
    system: agent(
      'system',
      conversionKeys('agent', ({ system }) => system),
    ),
    browser: agent('browser', conversionKeys('browser', String)),
    language: word('language', primaryLanguage),
    referrer: word('referrer', String),
    outcome: way(({ outcome }) => outcome),
    lane: way(({ routeId, exit }) => (exit === '' ? '' : within(routeId, exit))),
    variant: way(({ routeId, exit, variant }) => (variant === '' ? '' : within(routeId, exit, variant))),
  }
}
