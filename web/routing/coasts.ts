import { registerMap } from 'echarts/core'
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'
import coarse from 'world-atlas/countries-50m.json?url'
import fine from 'world-atlas/countries-10m.json?url'

const URLS = { coarse, fine }
/** 1:50 million for the world, 1:10 million for a coast; Natural Earth, public domain. */
export type Coasts = keyof typeof URLS

const loading = new Map<Coasts, Promise<void>>()

/** Resolves as soon as charts know the map of that name; fetched once, and again where that failed. */
export function loadCoasts(name: Coasts): Promise<void> {
  const known = loading.get(name)
  if (known) return known
  const loaded = fetch(URLS[name])
    .then((answer) => answer.json())
    .then((topology: Topology) => {
      const { countries } = topology.objects
      if (countries) registerMap(name, feature(topology, countries) as never)
    })
  loading.set(name, loaded)
  loaded.catch(() => loading.delete(name))
  return loaded
}
