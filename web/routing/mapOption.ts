import { circleAround, fromMercator, mercator, MERCATOR_END, type Point } from '@flimbo/core/conditions'
import type { EChartsCoreOption } from 'echarts/core'
import { INKS, SERIES } from '../ui/index.ts'
import type { Circle } from './circles.ts'

type Scheme = keyof typeof INKS

/** The corners of what a map shows: north-west, south-east; longitude before latitude, degrees. */
export type View = readonly [readonly [number, number], readonly [number, number]]

/** Where a map without circles looks: the whole world, but for the ice at both ends. */
const WORLD: View = [
  [-170, 72],
  [190, -56],
]
/** A view is at least so high and wide, in degrees of longitude: a lone point needs a coast to be recognised by. */
const LEAST_DEGREES = 3
const POINT_KM = 50

/** The view that holds all circles and the point of the test scan, with a little room about them. */
export function viewOf(circles: readonly Circle[], at: Point | null): View {
  const outlines = [...circles, ...(at ? [{ ...at, km: POINT_KM }] : [])].flatMap((circle) =>
    circleAround(circle, circle.km, 36).map(({ longitude, latitude }) => mercator([longitude, latitude])),
  )
  if (outlines.length === 0) return WORLD
  const xs = outlines.map(([x]) => x)
  const ys = outlines.map(([, y]) => y)
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const room = Math.max(right - left, bottom - top, (LEAST_DEGREES * Math.PI) / 180) * 0.15
  return [fromMercator([left - room, top - room]), fromMercator([right + room, bottom + room])]
}

/** Whether a view is so near that the coarse coasts show their corners. */
export function isNear([[west], [east]]: View): boolean {
  return east - west < 40
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
  const { hairline, sheet, quiet, signal } = INKS[scheme]
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
      itemStyle: { areaColor: sheet, borderColor: quiet, borderWidth: 0.6 },
      emphasis: { disabled: true },
      select: { disabled: true },
      silent: true,
    },
    series: [
      ...circles.map((circle, i) => circleSeries(circle, i, scheme)),
      ...(at
        ? [
            {
              type: 'scatter',
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
