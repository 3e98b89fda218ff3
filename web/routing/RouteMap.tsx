import { Box, Typography } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import useMediaQuery from '@mui/material/useMediaQuery'
import type { Point } from '@flimbo/core/conditions'
import { CustomChart, ScatterChart } from 'echarts/charts'
import { GeoComponent, TooltipComponent } from 'echarts/components'
import { init, use as withParts, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import type { Circle } from './circles.ts'
import { loadCoasts, type Coasts } from './coasts.ts'
import { isNear, mapOption, viewOf } from './mapOption.ts'

withParts([CustomChart, ScatterChart, GeoComponent, TooltipComponent, CanvasRenderer])

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
  const { mode, systemMode } = useColorScheme()
  const isStill = useMediaQuery('(prefers-reduced-motion: reduce)')
  const scheme = (mode === 'system' ? systemMode : mode) === 'dark' ? 'dark' : 'light'
  const [box, chart] = useMap(choose)
  // The view follows the circles, never the point: whoever chooses one stays where they are.
  const [first] = useState(at)
  const view = useMemo(() => viewOf(circles, circles.length === 0 ? first : null), [circles, first])
  const coasts = useCoasts(isNear(view) ? 'fine' : 'coarse')
  useEffect(() => {
    if (coasts.name)
      chart.current?.setOption(mapOption({ map: coasts.name, view, circles, at, scheme, isStill }), {
        replaceMerge: ['series'],
      })
  }, [chart, coasts.name, view, circles, at, scheme, isStill])

  return (
    <Box>
      <Box
        ref={box}
        role="img"
        aria-label={inWords(circles)}
        sx={{ height: 320, cursor: 'crosshair', bgcolor: 'background.default' }}
      />
      <Typography variant="caption" color="textSecondary">
        {coasts.hasFailed && 'The coasts could not be loaded: open this tab once more to try again. '}
        Click a point to put the test scan there; scroll to zoom. Shapes: Natural Earth, public domain. Real
        scans are placed by their network, often at the operator’s nearest exchange.
      </Typography>
    </Box>
  )
}

function inWords(circles: readonly Circle[]): string {
  if (circles.length === 0) return 'Map of the world; no lane draws a circle'
  const each = circles.map(({ place, name, km }) => `lane ${String(place)}: ${String(km)} km about ${name}`)
  return `Map with the circles of ${each.join('; ')}`
}

/** The coasts to draw, as soon as they are there; the ones before them stay until then. */
function useCoasts(wanted: Coasts): { name: Coasts | null; hasFailed: boolean } {
  const [name, setName] = useState<Coasts | null>(null)
  const [hasFailed, setFailed] = useState(false)
  useEffect(() => {
    let isWanted = true
    loadCoasts(wanted).then(
      () => {
        if (isWanted) setName(wanted)
        setFailed(false)
      },
      () => {
        setFailed(true)
      },
    )
    return () => {
      isWanted = false
    }
  }, [wanted])
  return { name, hasFailed }
}

/** A chart that fills its box and says which point of the earth was clicked. */
function useMap(choose: (point: Point) => void) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const chooseNow = useRef(choose)
  useEffect(() => {
    chooseNow.current = choose
  })
  useEffect(() => {
    if (!box.current) return
    const made = init(box.current)
    chart.current = made
    made.getZr().on('click', ({ offsetX, offsetY }) => {
      const point = pointAt(made, [offsetX, offsetY])
      if (point) chooseNow.current(point)
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
  return [box, chart] as const satisfies [RefObject<HTMLDivElement | null>, RefObject<EChartsType | null>]
}

/** The point of the earth under a pixel, to about a hundred metres; null beyond the map’s ends. */
function pointAt(chart: EChartsType, pixel: [number, number]): Point | null {
  const [longitude, latitude] = (chart.convertFromPixel('geo', pixel) as [number, number] | undefined) ?? []
  if (longitude === undefined || latitude === undefined) return null
  // East of the date line the numbers go on beyond 180.
  if (Math.abs(latitude) > 85 || Math.abs(longitude) > 360) return null
  const east = ((longitude + 540) % 360) - 180
  return { latitude: Math.round(latitude * 1e3) / 1e3, longitude: Math.round(east * 1e3) / 1e3 }
}
