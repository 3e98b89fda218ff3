/**
 * Mercator's projection of the sphere: conformal, so that a small circle on the ground is a circle on the map.
 * Source: J. P. Snyder, Map Projections: A Working Manual, U.S. Geological Survey Professional Paper 1395,
 * equations 7-1, 7-2, 7-4 and 7-5.
 */

/** Where maps end in the north and the south, degrees: a map of the whole world is a square then. */
export const MERCATOR_END = 85.0511

const RADIANS = Math.PI / 180

/**
 * The place of a point on the map, in earth radii, x to the right and y *downwards*, as screens count.
 * Latitudes beyond the map's end stand at its end; longitudes may go on beyond 180° and are not turned back.
 *
 * @param longitude degrees, east positive
 * @param latitude degrees, north positive
 */
export function mercator([longitude, latitude]: readonly [number, number]): [number, number] {
  const bounded = Math.min(MERCATOR_END, Math.max(-MERCATOR_END, latitude))
  return [longitude * RADIANS, -Math.log(Math.tan(Math.PI / 4 + (bounded * RADIANS) / 2))]
}

/** The longitude and latitude, degrees, of a point that `mercator` placed. */
export function fromMercator([x, y]: readonly [number, number]): [number, number] {
  return [x / RADIANS, 90 - (2 * Math.atan(Math.exp(y))) / RADIANS]
}
