import type { PairCount } from './pairs.ts'
import type { PlaceRow } from './lookUps.ts'

/** Where each city lies that scans came from: at the place most of them did; at the first of equals. */
export function citySpots(
  counts: readonly PairCount[],
  spots: readonly string[],
  placeOf: (id: number) => PlaceRow | undefined,
): Record<string, [latitude: number, longitude: number]> {
  const most = new Map<string, { scans: number; id: number; at: [number, number] }>()
  for (const { a, scans } of counts) {
    const id = Number(spots[a])
    const place = placeOf(id)
    if (!place || place.city === '' || place.latitude === null || place.longitude === null) continue
    const city = [place.country, place.region, place.city].join('\t')
    const there = most.get(city)
    if (there && (there.scans > scans || (there.scans === scans && there.id < id))) continue
    most.set(city, { scans, id, at: [place.latitude, place.longitude] })
  }
  return Object.fromEntries([...most].map(([city, { at }]) => [city, at]))
}
