import { COUNTRY_MAP } from '@flimbo/core/charts'
import { registerMap } from 'echarts/core'
import { numericToAlpha2 } from 'i18n-iso-countries'
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'
import shapes from 'world-atlas/countries-50m.json?url'

const ANTARCTICA = '010'

let loading: Promise<void> | null = null

/** Resolves as soon as charts know the countries by their codes; fetched once, and again where that failed. */
export function loadCountries(): Promise<void> {
  loading ??= fetch(shapes)
    .then((answer) => answer.json())
    .then((topology: Topology) => {
      const { countries } = topology.objects
      if (!countries) return
      const collection = feature(topology, countries)
      const features = 'features' in collection ? collection.features : [collection]
      registerMap(COUNTRY_MAP, {
        type: 'FeatureCollection',
        // Natural Earth numbers countries as ISO 3166-1 does; those without a number have their names.
        // Nobody scans at the South Pole, and the world is larger without it.
        features: features
          .filter(({ id }) => id !== ANTARCTICA)
          .map((each) => ({
            ...each,
            properties: {
              name:
                numericToAlpha2(String(each.id ?? '')) ?? (each.properties as { name?: string } | null)?.name,
            },
          })),
      } as never)
    })
    .catch((error: unknown) => {
      loading = null
      throw error
    })
  return loading
}
