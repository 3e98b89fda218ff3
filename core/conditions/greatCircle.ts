/** Degrees north and east. */
export interface Point {
  readonly latitude: number
  readonly longitude: number
}

/** Mean radius of the earth in kilometres (IUGG). */
export const EARTH_RADIUS_KM = 6371.0088

const radians = (degrees: number) => (degrees * Math.PI) / 180

/**
 * The great-circle distance of two points in kilometres, by the haversine formula on a sphere of the
 * mean radius; within 0.6 % of the distance on the WGS 84 ellipsoid. Degrees in, any longitude.
 */
export function greatCircleKm(a: Point, b: Point): number {
  const rise = Math.sin(radians(b.latitude - a.latitude) / 2)
  const turn = Math.sin(radians(b.longitude - a.longitude) / 2)
  const h = rise * rise + Math.cos(radians(a.latitude)) * Math.cos(radians(b.latitude)) * turn * turn
  return 2 * EARTH_RADIUS_KM * Math.asin(Math.sqrt(Math.min(1, h)))
}

/** The outline of a circle on the sphere as points at equal bearings, the first repeated at the end; for drawing. */
export function circleAround({ latitude, longitude }: Point, km: number, corners = 72): Point[] {
  const angle = km / EARTH_RADIUS_KM
  const lat = radians(latitude)
  return Array.from({ length: corners + 1 }, (_, i) => {
    const bearing = (2 * Math.PI * i) / corners
    const north = Math.asin(
      Math.min(
        1,
        Math.max(-1, Math.sin(lat) * Math.cos(angle) + Math.cos(lat) * Math.sin(angle) * Math.cos(bearing)),
      ),
    )
    const east = Math.atan2(
      Math.sin(bearing) * Math.sin(angle) * Math.cos(lat),
      Math.cos(angle) - Math.sin(lat) * Math.sin(north),
    )
    return { latitude: (north * 180) / Math.PI, longitude: longitude + (east * 180) / Math.PI }
  })
}
