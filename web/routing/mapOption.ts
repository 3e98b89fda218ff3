import { circleAround, fromMercator, mercator, MERCATOR_END, type Point } from '@flimbo/core/conditions'
import type { EChartsCoreOption } from 'echarts/core'
import { CHART_COLOURS, INKS, SERIES } from '@flimbo/core/charts'
import type { Circle } from './circles.ts'

type Scheme = keyof typeof INKS

/** The corners of what a map shows: north-west, south-east; longitude before latitude, degrees. */
export type View = readonly [readonly [number, number], readonly [number, number]]

/** A map without circles looks at the world from here, but for the ice at both ends. */
const WORLD = [
  [-170, 72],
  [190, -56],
] as const satisfies View
/** A view is at least so high and wide, in degrees of longitude: a lone point needs a coast to be recognised by. */
const LEAST_DEGREES = 3
const POINT_KM = 50

/**
 * The view that holds all circles and the point of the test scan, with a little room about them.
 * A chart stretches its view to its box, so that circles are round only where both have one shape.
 *
 * @param shape the width of the box by its height
 */
export function viewOf(circles: readonly Circle[], at: Point | null, shape: number): View {
  const outlines = [...circles, ...(at ? [{ ...at, km: POINT_KM }] : [])].flatMap((circle) =>
    circleAround(circle, circle.km, 36).map(({ longitude, latitude }) => mercator([longitude, latitude])),
  )
  const held = outlines.length === 0 ? WORLD.map(mercator) : outlines
  const xs = held.map(([x]) => x)
  const ys = held.map(([, y]) => y)
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const least = (LEAST_DEGREES * Math.PI) / 180
  const room = outlines.length === 0 ? 1 : 1.3
  const height = Math.max(bottom - top, (right - left) / shape, least) * room
  const [x, y] = [(left + right) / 2, (top + bottom) / 2]
  const [across, down] = [(height * shape) / 2, height / 2]
  return [fromMercator([x - across, y - down]), fromMercator([x + across, y + down])]
}

/** Whether a view is so near that the coarse coasts show their corners. */
export function isNear([[west], [east]]: View): boolean {
  return east - west < 40
}

/** Two points far apart, by which a map tells where it lies: longitude before latitude, degrees. */
const NULL_ISLAND = [0, 0] as const
const FAR_OFF = [90, -60] as const

/**
 * The point of the earth under a pixel, to about a hundred metres; null beyond the map's ends.
 * The chart's own way back from pixels leaves its projection out of account: a map is a shifted and scaled
 * picture of the projected earth, so that two points placed by it tell where all others are.
 *
 * @param toPixel where the chart draws a point, longitude before latitude, degrees
 */
export function pointUnder(
  [x, y]: readonly [number, number],
  toPixel: (degrees: readonly [number, number]) => readonly number[],
): Point | null {
  const [x0 = NaN, y0 = NaN] = toPixel(NULL_ISLAND)
  const [x1 = NaN, y1 = NaN] = toPixel(FAR_OFF)
  const [across, down] = mercator(FAR_OFF)
  const [longitude, latitude] = fromMercator([((x - x0) / (x1 - x0)) * across, ((y - y0) / (y1 - y0)) * down])
  // Outside these, and where the chart has drawn nothing yet.
  if (!(Math.abs(latitude) <= 85 && Math.abs(longitude) <= 360)) return null
  // East of the date line the numbers go on beyond 180.
  const east = ((longitude + 540) % 360) - 180
  return { latitude: Math.round(latitude * 1e3) / 1e3, longitude: Math.round(east * 1e3) / 1e3 }
}

interface Drawn {
  readonly map: string
  readonly view: View
  readonly circles: readonly Circle[]
  readonly at: Point | null
  readonly scheme: Scheme
  readonly isStill: boolean
}

/** What the map draws: coasts in Mercator's projection, a circle for each lane that has one, a pin for the test scan. */
export function mapOption({ map, view, circles, at, scheme, isStill }: Drawn): EChartsCoreOption {
  const { hairline, quiet, signal } = INKS[scheme]
  return {
    animation: !isStill,
    geo: {
      map,
      roam: true,
      projection: { project: mercator, unproject: fromMercator },
      boundingCoords: view,
      left: 0,
      right: 0,
      top: 0,
      bottom: 0,
      itemStyle: { areaColor: CHART_COLOURS[scheme].land, borderColor: quiet, borderWidth: 0.6 },
      emphasis: { disabled: true },
      select: { disabled: true },
      silent: true,
    },
    series: [
      ...circles.map((circle, i) => circleSeries(circle, i, scheme)),
      ...(at
        ? [
            {
              id: 'test scan',
              type: 'scatter',
              animation: false,
              coordinateSystem: 'geo',
              symbol: 'pin',
              symbolSize: 28,
              itemStyle: { color: signal, borderColor: hairline },
              data: [[at.longitude, at.latitude]],
              silent: true,
            },
          ]
        : []),
    ],
  }
}

function circleSeries(circle: Circle, i: number, scheme: Scheme) {
  const { ink } = INKS[scheme]
  const colour = SERIES[scheme][i % SERIES[scheme].length] ?? ink
  const outline = circleAround(circle, circle.km)
  return {
    type: 'custom',
    coordinateSystem: 'geo',
    data: [[circle.longitude, circle.latitude]],
    silent: true,
    renderItem: (_params: unknown, api: { coord: (point: number[]) => number[] }) => {
      const points = outline.map(({ longitude, latitude }) =>
        api.coord([longitude, Math.min(MERCATOR_END, Math.max(-MERCATOR_END, latitude))]),
      )
      const [x, y] = api.coord([circle.longitude, circle.latitude])
      return {
        type: 'group',
        children: [
          { type: 'polygon', shape: { points }, style: { fill: colour, opacity: 0.22 } },
          { type: 'polyline', shape: { points }, style: { stroke: colour, lineWidth: 2, fill: 'none' } },
          {
            type: 'text',
            x,
            y,
            style: {
              text: `lane ${String(circle.place)}${circle.name === '' ? '' : `\n${circle.name}`}`,
              fill: ink,
              fontSize: 12,
              lineHeight: 15,
              align: 'center',
              verticalAlign: 'middle',
            },
          },
        ],
      }
    },
  }
}
