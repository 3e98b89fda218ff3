import { Box, Typography } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import useMediaQuery from '@mui/material/useMediaQuery'
import { circleAround, type Point } from '@flimbo/core/conditions'
import { CustomChart, ScatterChart } from 'echarts/charts'
import { GeoComponent, TooltipComponent } from 'echarts/components'
import { init, registerMap, use as withParts, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import { feature } from 'topojson-client'
import type { Topology } from 'topojson-specification'
import world from 'world-atlas/countries-50m.json'
import { INKS, SERIES } from '../ui/index.ts'
import type { Circle } from './circles.ts'

withParts([CustomChart, ScatterChart, GeoComponent, TooltipComponent, CanvasRenderer])
const topology = world as unknown as Topology
const countries = topology.objects.countries
if (countries) registerMap('world', feature(topology, countries) as never)

/** The circles of the lanes on a map of the world; choosing a point puts the test scan there. */
export default function RouteMap({
  circles,
  at,
  choose,
}: {
  circles: readonly Circle[]
  at: Point | null
  choose: (point: Point) => void
}) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const { mode, systemMode } = useColorScheme()
  const quiet = useMediaQuery('(prefers-reduced-motion: reduce)')
  const scheme = (mode === 'system' ? systemMode : mode) === 'dark' ? 'dark' : 'light'
  const chooseNow = useRef(choose)
  useEffect(() => {
    chooseNow.current = choose
  })

  useEffect(() => {
    if (!box.current) return
    const made = init(box.current)
    chart.current = made
    made.getZr().on('click', ({ offsetX, offsetY }) => {
      const found = made.convertFromPixel('geo', [offsetX, offsetY]) as number[] | undefined
      const [longitude, latitude] = found ?? []
      if (
        longitude !== undefined &&
        latitude !== undefined &&
        Math.abs(latitude) <= 90 &&
        Math.abs(longitude) <= 180
      )
        chooseNow.current({
          latitude: Math.round(latitude * 1e3) / 1e3,
          longitude: Math.round(longitude * 1e3) / 1e3,
        })
    })
    const sized = new ResizeObserver(() => {
      made.resize()
    })
    sized.observe(box.current)
    return () => {
      sized.disconnect()
      made.dispose()
    }
  }, [])

  useEffect(() => {
    const { hairline, sheet, quiet: grey, signal, ink } = INKS[scheme]
    const points = [...circles, ...(at ? [{ ...at, km: 50 }] : [])]
    const middle =
      points.length === 0
        ? [10, 52]
        : [
            points.reduce((sum, { longitude }) => sum + longitude, 0) / points.length,
            points.reduce((sum, { latitude }) => sum + latitude, 0) / points.length,
          ]
    const widest = Math.max(
      4,
      ...points.map(
        ({ longitude, latitude, km }) =>
          2 * Math.max(Math.abs(longitude - (middle[0] ?? 0)), Math.abs(latitude - (middle[1] ?? 0))) +
          km / 30,
      ),
    )
    chart.current?.setOption(
      {
        animation: !quiet,
        geo: {
          map: 'world',
          roam: true,
          center: middle,
          zoom: Math.min(60, 220 / widest),
          itemStyle: { areaColor: sheet, borderColor: grey, borderWidth: 0.6 },
          emphasis: { disabled: true },
          select: { disabled: true },
          silent: true,
        },
        series: [
          ...circles.map((circle, i) => {
            const colour = SERIES[scheme][i % SERIES[scheme].length] ?? ink
            const outline = circleAround(circle, circle.km)
            return {
              type: 'custom',
              coordinateSystem: 'geo',
              data: [[circle.longitude, circle.latitude]],
              silent: true,
              renderItem: (_params: unknown, api: { coord: (point: number[]) => number[] }) => ({
                type: 'group',
                children: [
                  {
                    type: 'polygon',
                    shape: {
                      points: outline.map(({ longitude, latitude }) => api.coord([longitude, latitude])),
                    },
                    style: { fill: colour, opacity: 0.22 },
                  },
                  {
                    type: 'polyline',
                    shape: {
                      points: outline.map(({ longitude, latitude }) => api.coord([longitude, latitude])),
                    },
                    style: { stroke: colour, lineWidth: 2, fill: 'none' },
                  },
                  {
                    type: 'text',
                    x: api.coord([circle.longitude, circle.latitude])[0],
                    y: api.coord([circle.longitude, circle.latitude])[1],
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
              }),
            }
          }),
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
      } as never,
      true,
    )
  }, [circles, at, scheme, quiet])

  return (
    <Box>
      <Box
        ref={box}
        role="img"
        aria-label={
          circles.length === 0
            ? 'Map of the world; no lane draws a circle'
            : `Map with the circles of ${circles.map(({ place, name, km }) => `lane ${String(place)}: ${String(km)} km about ${name}`).join('; ')}`
        }
        sx={{ height: 320, cursor: 'crosshair', bgcolor: 'background.default' }}
      />
      <Typography variant="caption" color="textSecondary">
        Choose a point to put the test scan there; the wheel comes nearer. Shapes: Natural Earth, public
        domain. Real scans are placed by their network, often at the operator’s nearest exchange.
      </Typography>
    </Box>
  )
}
