import { placeMap } from '@flimbo/core/pages'
import { type GeoPoint } from '@flimbo/core/fields'
import { useQuery } from '@tanstack/react-query'
import type { Topology } from 'topojson-specification'
import land from 'world-atlas/land-50m.json?url'

/** Draws small maps, as the front door shows them, once the shapes have come; they are fetched where one is wanted. */
export function usePlaceMap(isWanted: boolean): (point: GeoPoint) => string {
  const { data } = useQuery({
    queryKey: ['land-50m'],
    queryFn: async () => (await (await fetch(land)).json()) as Topology,
    staleTime: Infinity,
    enabled: isWanted,
  })
  return (point) => (data ? placeMap(data, point) : '')
}
