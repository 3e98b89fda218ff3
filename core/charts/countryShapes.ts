import codes from 'i18n-iso-countries/codes.json' with { type: 'json' }
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'

/** The shapes of countries (GeoJSON, RFC 7946), each with a name. */
export type CountryShapes = Extract<ReturnType<typeof feature>, { type: 'FeatureCollection' }>

const ANTARCTICA = '010'

/** Two-letter codes by the numbers of countries (ISO 3166-1). */
const alpha2 = new Map(codes.map(([short = '', , numeric = '']) => [numeric, short]))

const nameOf = ({ properties }: CountryShapes['features'][number]) =>
  (properties as { name?: string } | null)?.name

/** The countries of a topology of Natural Earth under their own names; null where it has none. */
export function namedShapes({ objects: { countries }, ...topology }: Topology): CountryShapes | null {
  // Countries are many.
  return countries ? (feature({ ...topology, objects: { countries } }, countries) as CountryShapes) : null
}

/**
 * The same under their codes (ISO 3166-1 alpha-2): Natural Earth numbers them as the standard does, those without a number
 * keep their names. Nobody scans at the South Pole, and the world is larger without it.
 */
export function codedShapes(topology: Topology): CountryShapes | null {
  const shapes = namedShapes(topology)
  return (
    shapes && {
      ...shapes,
      features: shapes.features
        .filter(({ id }) => id !== ANTARCTICA)
        .map((each) => ({
          ...each,
          properties: { ...each.properties, name: alpha2.get(String(each.id ?? '')) ?? nameOf(each) },
        })),
    }
  )
}
