import { Box, Typography } from '@mui/material'
import useMediaQuery from '@mui/material/useMediaQuery'
import type { Point } from '@flimbo/core/conditions'
import { CustomChart, ScatterChart } from 'echarts/charts'
import { GeoComponent, TooltipComponent } from 'echarts/components'
import { init, use as withParts, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import same from 'fast-deep-equal'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { loadMap, useScheme, type Coasts } from '../charts/index.ts'
import type { Circle } from './circles.ts'
import { isNear, mapOption, pointUnder, viewOf } from './mapOption.ts'

withParts([CustomChart, ScatterChart, GeoComponent, TooltipComponent, CanvasRenderer])

const HEIGHT_PX = 320

/** The circles of the lanes on a map of the world; choosing a point puts the test scan there. */
export default function RouteMap({
  choose,
  ...shown
}: {
  circles: readonly Circle[]
  at: Point | null
  choose: (point: Point) => void
}) {
  const { circles, at } = useSteady(shown)
  const isStill = useMediaQuery('(prefers-reduced-motion: reduce)')
  const scheme = useScheme()
  const [box, chart, shape] = useMap(choose)
  // The view follows the circles, never the point: whoever chooses one stays where they are.
  const [first] = useState(at)
  const view = useMemo(
    () => viewOf(circles, circles.length === 0 ? first : null, shape),
    [circles, first, shape],
  )
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
        sx={{ height: HEIGHT_PX, cursor: 'crosshair', bgcolor: 'background.paper' }}
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

/** The same object for as long as it says the same, so that what is drawn from it is drawn once. */
function useSteady<T>(value: T): T {
  const [steady, setSteady] = useState(value)
  if (same(steady, value)) return steady
  setSteady(value)
  return value
}

/** The coasts to draw, as soon as they are there; the ones before them stay until then. */
function useCoasts(wanted: Coasts): { name: Coasts | null; hasFailed: boolean } {
  const [name, setName] = useState<Coasts | null>(null)
  const [hasFailed, setFailed] = useState(false)
  useEffect(() => {
    let isWanted = true
    loadMap(wanted).then(
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

/** A chart that fills its box, the width of that by its height; a click says which point of the earth it is at. */
function useMap(choose: (point: Point) => void) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const [shape, setShape] = useState(2)
  const chooseNow = useRef(choose)
  useEffect(() => {
    chooseNow.current = choose
  })
  useEffect(() => {
    if (!box.current) return
    const made = init(box.current)
    chart.current = made
    made.getZr().on('click', ({ offsetX, offsetY }) => {
      const point = pointUnder([offsetX, offsetY], (degrees) => made.convertToPixel('geo', [...degrees]))
      if (point) chooseNow.current(point)
    })
    const sized = new ResizeObserver(() => {
      made.resize()
      if (made.getHeight() > 0 && made.getWidth() > 0) setShape(made.getWidth() / made.getHeight())
    })
    sized.observe(box.current)
    return () => {
      sized.disconnect()
      made.dispose()
    }
  }, [])
  return [box, chart, shape] as const satisfies [
    RefObject<HTMLDivElement | null>,
    RefObject<EChartsType | null>,
    number,
  ]
}
