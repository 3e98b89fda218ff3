import { codedShapes, COUNTRY_MAP, namedShapes } from '@flimbo/core/charts'
import { registerMap } from 'echarts/core'
import type { Topology } from 'topojson-specification'
import coarse from 'world-atlas/countries-50m.json?url'
import fine from 'world-atlas/countries-10m.json?url'

/** 1:50 million for the world, 1:10 million for a coast; Natural Earth, public domain. */
const URLS = { coarse, fine, [COUNTRY_MAP]: coarse } as const
/** Coasts alone, or countries by their codes (ISO 3166-1 alpha-2). */
export type MapName = keyof typeof URLS
export type Coasts = Exclude<MapName, typeof COUNTRY_MAP>

const loading = new Map<MapName, Promise<void>>()

/** Resolves as soon as charts know the map of that name; fetched once, and again where that failed. */
export function loadMap(name: MapName): Promise<void> {
  const known = loading.get(name)
  if (known) return known
  const loaded = fetch(URLS[name])
    .then((answer) => answer.json())
    .then((topology: Topology) => {
      const shapes = name === COUNTRY_MAP ? codedShapes(topology) : namedShapes(topology)
      if (shapes) registerMap(name, shapes as never)
    })
  loading.set(name, loaded)
  loaded.catch(() => loading.delete(name))
  return loaded
}
