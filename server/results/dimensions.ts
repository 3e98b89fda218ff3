import type Sqlite from 'better-sqlite3'
import { primaryLanguage } from '@flimbo/core/scans'
import type { DimensionValue } from '@flimbo/core/figures'
import { readWay, type ScanDimension } from '../scans/queries.ts'
import { lookUps } from './lookUps.ts'

/** What scans can be told apart by that stands in the scan itself. */
export const SCAN_TRAITS = [
  'country',
  'region',
  'city',
  'device',
  'system',
  'browser',
  'language',
  'referrer',
  'outcome',
  'exit',
  'variant',
] as const
export type ScanTrait = (typeof SCAN_TRAITS)[number]

/** Where a trait stands, and what it is of a value that stands there. */
export interface Trait {
  readonly dimension: ScanDimension
  readonly keyOf: (value: DimensionValue) => string
}

/** How each trait is read out of the dimensions of a scan. A region or a city is named with what it lies in. */
export function scanTraits(database: Sqlite.Database): Readonly<Record<ScanTrait, Trait>> {
  const { placeOf, agentOf } = lookUps(database)
  const place = (keyOf: (place: NonNullable<ReturnType<typeof placeOf>>) => string): Trait => ({
    dimension: 'place',
    keyOf(value) {
      const row = placeOf(Number(value))
      return row ? keyOf(row) : ''
    },
  })
  const agent = (name: 'device' | 'system' | 'browser'): Trait => ({
    dimension: 'agent',
    keyOf: (value) => agentOf(Number(value))?.[name] ?? '',
  })
  const way = (name: 'outcome' | 'exit' | 'variant'): Trait => ({
    dimension: 'way',
    keyOf: (value) => readWay(String(value))[name],
  })
  return {
    country: place(({ country }) => country),
    region: place(({ country, region }) => `${country}\t${region}`),
    city: place(({ country, region, city }) => `${country}\t${region}\t${city}`),
    device: agent('device'),
    system: agent('system'),
    browser: agent('browser'),
    language: { dimension: 'language', keyOf: (value) => primaryLanguage(String(value)) },
    referrer: { dimension: 'referrer', keyOf: String },
    outcome: way('outcome'),
    exit: way('exit'),
    variant: way('variant'),
  }
}
