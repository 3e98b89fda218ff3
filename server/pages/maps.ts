import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { mapKey, mappedPoints, placeMap, type PageContent } from '@flimbo/core/pages'
import type { Topology } from 'topojson-specification'

let land: Topology | null = null

/** Land at 1:50 million (Natural Earth, public domain), read when the first map is drawn. */
function shapes(): Topology {
  land ??= JSON.parse(
    readFileSync(createRequire(import.meta.url).resolve('world-atlas/land-50m.json'), 'utf8'),
  ) as Topology
  return land
}

/** The maps that a page shows, by what they are kept under. They are drawn when it is published: no phone waits for one. */
export function mapsOf(content: PageContent): Record<string, string> {
  return Object.fromEntries(mappedPoints(content).map((point) => [mapKey(point), placeMap(shapes(), point)]))
}
