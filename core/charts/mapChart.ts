import { geoAzimuthalEqualArea, geoEqualEarth, type GeoProjection } from 'd3-geo'
import { circleAround, type Point } from '../conditions/index.ts'
import { number } from '../formats/index.ts'
import { measured } from '../results/index.ts'
import { commonOption, tooltipOf, type ChartOption, type Drawn } from './drawn.ts'
import { keyLabel } from './keyLabels.ts'
import { measureShort, measureText } from './measureText.ts'

/** Longitude before latitude, degrees. */
type Corner = readonly [number, number]

/** A map of countries, which are named by their codes (ISO 3166-1 alpha-2), as ECharts knows it. */
export const COUNTRY_MAP = 'countries'

/** The view holds so much of all scans: a lone one far away does not make the rest small. */
const HELD = 0.95
const LEAST_DEGREES = 2.5
const ROOM = 1.3
const LARGEST_PX = 46
const RINGS_KM = [5, 20, 50, 100, 300] as const

/**
 * Areas are true to each other, as whatever is shaded by an amount needs them: of the world by Equal Earth (Šavrič,
 * Patterson, Jenny 2018), of a part of it by Lambert's azimuthal projection about its middle, where shapes are true too.
 */
const WORLD = geoEqualEarth()
const about = (longitude: number, latitude: number): GeoProjection =>
  geoAzimuthalEqualArea().rotate([-longitude, -latitude])
/** A view that is wider, in degrees, is the world. */
const WIDEST_DEGREES = 120

/** Cities with where they lie and what they come to, the largest first. */
interface Spot {
  readonly name: string
  readonly at: Corner
  readonly value: number
}

function spotsOf({ what, answer }: Drawn): Spot[] {
  return answer.rows
    .flatMap((row) => {
      const [key = ''] = row.keys
      const spot = answer.spots[key]
      const value = measured(what, row)
      if (!spot || value === null || value <= 0) return []
      return [{ name: keyLabel('city', key, answer.names), at: [spot[1], spot[0]] as const, value }]
    })
    .sort((a, b) => b.value - a.value)
}

/** The width of a map by its height: a view of that shape is not stretched. */
export const MAP_SHAPE = 1.9
/** What a map looks at: by which projection, and from where to where, north-west and south-east. */
export interface MapView {
  readonly projection: GeoProjection
  readonly corners: readonly [Corner, Corner]
}

/** A view of the map's shape that holds most of some spots, and where the piece hangs; null where that is the world. */
export function mapView(spots: readonly Pick<Spot, 'at' | 'value'>[], piece: Point | null): MapView | null {
  const all = spots.reduce((sum, { value }) => sum + value, 0)
  let held = 0
  const shown: Corner[] = piece ? [[piece.longitude, piece.latitude]] : []
  for (const { at, value } of spots) {
    if (held >= HELD * all) break
    held += value
    shown.push(at)
  }
  const [west, east] = rangeOf(shown.map(([longitude]) => longitude))
  const [south, north] = rangeOf(shown.map(([, latitude]) => latitude))
  if (shown.length === 0 || east - west > WIDEST_DEGREES) return null
  const projection = about((west + east) / 2, (south + north) / 2)
  const points = shown.map((corner): Corner => projection([...corner]) ?? [0, 0])
  const [left, right] = rangeOf(points.map(([x]) => x))
  const [top, bottom] = rangeOf(points.map(([, y]) => y))
  const least = (projection.scale() * LEAST_DEGREES * Math.PI) / 180
  const height = ROOM * Math.max(bottom - top, (right - left) / MAP_SHAPE, least)
  const [x, y, across, down] = [(left + right) / 2, (top + bottom) / 2, (height * MAP_SHAPE) / 2, height / 2]
  const first = onEarth(projection, [x - across, y - down])
  const second = onEarth(projection, [x + across, y + down])
  return first && second && { projection, corners: [first, second] }
}

const rangeOf = (numbers: readonly number[]) => [Math.min(...numbers), Math.max(...numbers)] as const

/** The place at a point of the plane; beyond the edge of the world there is none. */
function onEarth(projection: GeoProjection, point: readonly [number, number]): Corner | null {
  const corner = projection.invert?.([...point])
  const there = corner && projection(corner)
  return there && Math.hypot(there[0] - point[0], there[1] - point[1]) < 1e-3 ? corner : null
}

/**
 * A map of the world: countries shaded by what they come to, or cities as circles whose areas do; about a piece that hangs
 * somewhere, rings of distance.
 */
export function mapChart(drawn: Drawn, piece: Point | null): ChartOption {
  const { what, by, answer, colours, currency } = drawn
  const isByCity = by[0] === 'city'
  const spots = isByCity ? spotsOf(drawn) : []
  const countries = isByCity
    ? []
    : answer.rows.map((row) => ({ name: row.keys[0] ?? '', value: measured(what, row) ?? 0 }))
  const view = isByCity ? mapView(spots, piece) : null
  const projection = view?.projection ?? WORLD
  const most = Math.max(1e-9, ...spots.map(({ value }) => value), ...countries.map(({ value }) => value))
  return {
    ...commonOption(drawn),
    tooltip: tooltipOf(drawn, {
      formatter: ({ name, value }: { name: string; value: number | number[] }) => {
        const amount = Array.isArray(value) ? (value[2] ?? 0) : value
        const place = isByCity ? name : keyLabel('country', name)
        return Number.isNaN(amount) ? place : `${place}\n${measureText(what, amount, currency)}`
      },
    }),
    geo: {
      map: COUNTRY_MAP,
      roam: true,
      projection: {
        project: (point: [number, number]) => projection(point),
        unproject: (point: [number, number]) => projection.invert?.(point),
        stream: projection.stream.bind(projection),
      },
      ...placed(view),
      itemStyle: { areaColor: colours.land, borderColor: colours.quiet, borderWidth: 0.5 },
      emphasis: { disabled: isByCity, itemStyle: { areaColor: colours.signal }, label: { show: false } },
      select: { disabled: true },
    },
    ...(isByCity
      ? {}
      : {
          visualMap: {
            seriesIndex: 0,
            min: 0,
            max: most,
            left: 8,
            bottom: 8,
            itemHeight: 90,
            itemWidth: 10,
            inRange: { color: [...colours.ramp] },
            textStyle: { color: colours.quiet, fontSize: 12 },
            formatter: (value: number) => measureShort(what, value, currency),
          },
        }),
    series: isByCity
      ? [...ringSeries(drawn, piece), citySeries(drawn, spots, most)]
      : [{ type: 'map', geoIndex: 0, map: COUNTRY_MAP, data: countries }],
  }
}

/** A view fills the map, whose shape it has; the world stands in its middle, as wide as it. */
const placed = (view: MapView | null): ChartOption =>
  view
    ? { boundingCoords: view.corners, left: 0, right: 0, top: 0, bottom: 0 }
    : { layoutCenter: ['50%', '50%'], layoutSize: `${String(100 * MAP_SHAPE)}%` }

function citySeries({ colours }: Drawn, spots: readonly Spot[], most: number): ChartOption {
  return {
    type: 'scatter',
    coordinateSystem: 'geo',
    data: spots.map(({ name, at, value }) => ({ name, value: [...at, value] })),
    // Areas are to each other as the figures are.
    symbolSize: ([, , value = 0]: number[]) => Math.max(4, LARGEST_PX * Math.sqrt(value / most)),
    itemStyle: { color: colours.series[0], opacity: 0.6, borderColor: colours.sheet, borderWidth: 1 },
    emphasis: { itemStyle: { opacity: 0.9 } },
  }
}

function ringSeries({ colours }: Drawn, piece: Point | null): ChartOption[] {
  if (!piece) return []
  const ring = (km: number) =>
    circleAround(piece, km).map(({ longitude, latitude }): [number, number] => [longitude, latitude])
  return [
    {
      type: 'lines',
      coordinateSystem: 'geo',
      polyline: true,
      silent: true,
      lineStyle: { color: colours.quiet, width: 1, opacity: 0.7 },
      data: RINGS_KM.map((km) => {
        const coords = ring(km)
        return { coords: [...coords, coords[0] ?? [0, 0]] }
      }),
    },
    {
      type: 'scatter',
      coordinateSystem: 'geo',
      silent: true,
      symbol: 'diamond',
      symbolSize: 12,
      itemStyle: { color: colours.signal },
      data: [
        { value: [piece.longitude, piece.latitude] },
        ...RINGS_KM.map((km) => ({
          value: [piece.longitude, Math.max(...ring(km).map(([, latitude]) => latitude))],
          symbolSize: 0,
          label: { show: true, formatter: `${number(km)} km`, color: colours.quiet, fontSize: 11 },
        })),
      ],
    },
  ]
}
