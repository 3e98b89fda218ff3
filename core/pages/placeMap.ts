import { geoMercator, geoPath } from 'd3-geo'
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'
import type { GeoPoint } from '../fields/index.ts'

const WIDTH = 320
const HEIGHT = 180
/** Pixels a radian: some 250 km from one side to the other in the middle of Europe. */
const SCALE = 5200
const PIN_RADIUS = 7

/**
 * A small map about a place, as an SVG drawing without any colour of its own: land and water, and where the place is.
 *
 * @param land shapes of land as TopoJSON, such as Natural Earth's at 1:50 million (public domain)
 */
export function placeMap(land: Topology, { latitude, longitude }: GeoPoint): string {
  const [shape] = Object.values(land.objects)
  const projection = geoMercator()
    .center([longitude, latitude])
    .scale(SCALE)
    .translate([WIDTH / 2, HEIGHT / 2])
    .clipExtent([
      [0, 0],
      [WIDTH, HEIGHT],
    ])
  const path = shape ? geoPath(projection).digits(1)(feature(land, shape)) : null
  const drawn = path === null ? '' : `<path class="land" d="${path}"/>`
  return `<svg viewBox="0 0 ${String(WIDTH)} ${String(HEIGHT)}" aria-hidden="true">${drawn}<circle class="pin" cx="${String(WIDTH / 2)}" cy="${String(HEIGHT / 2)}" r="${String(PIN_RADIUS)}"/></svg>`
}

/** What a map is kept under. */
export const mapKey = ({ latitude, longitude }: GeoPoint): string =>
  `${latitude.toFixed(5)},${longitude.toFixed(5)}`
