import { COUNTRY_MAP } from '@flimbo/core/charts'
import { registerMap } from 'echarts/core'
import { numericToAlpha2 } from 'i18n-iso-countries'
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'
import coarse from 'world-atlas/countries-50m.json?url'
import fine from 'world-atlas/countries-10m.json?url'

/** 1:50 million for the world, 1:10 million for a coast; Natural Earth, public domain. */
const URLS = { coarse, fine, [COUNTRY_MAP]: coarse } as const
/** Coasts alone, or countries by their codes (ISO 3166-1 alpha-2). */
export type MapName = keyof typeof URLS
export type Coasts = Exclude<MapName, typeof COUNTRY_MAP>

type Shapes = Extract<ReturnType<typeof feature>, { type: 'FeatureCollection' }>
const ANTARCTICA = '010'

/** Countries that are named by their codes: Natural Earth numbers them as ISO 3166-1 does, those without a number keep their names. */
const byCode = (shapes: Shapes): Shapes => ({
  ...shapes,
  features: shapes.features
    // Nobody scans at the South Pole, and the world is larger without it.
    .filter(({ id }) => id !== ANTARCTICA)
    .map((each) => ({
      ...each,
      properties: { ...each.properties, name: numericToAlpha2(String(each.id ?? '')) ?? nameOf(each) },
    })),
})
const nameOf = ({ properties }: Shapes['features'][number]) => (properties as { name?: string } | null)?.name

const loading = new Map<MapName, Promise<void>>()

/** Resolves as soon as charts know the map of that name; fetched once, and again where that failed. */
export function loadMap(name: MapName): Promise<void> {
  const known = loading.get(name)
  if (known) return known
  const loaded = fetch(URLS[name])
    .then((answer) => answer.json())
    .then((topology: Topology) => {
      const { countries } = topology.objects
      if (!countries) return
      // Countries are many.
      const shapes = feature(topology, countries) as Shapes
      registerMap(name, (name === COUNTRY_MAP ? byCode(shapes) : shapes) as never)
    })
  loading.set(name, loaded)
  loaded.catch(() => loading.delete(name))
  return loaded
}
