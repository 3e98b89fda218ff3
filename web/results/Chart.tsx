import { Box } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { BarChart, LineChart } from 'echarts/charts'
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components'
import { init, use as register, type EChartsCoreOption, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import { INKS, SERIES } from '../ui/index.ts'

register([
  BarChart,
  LineChart,
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  CanvasRenderer,
])

export interface ChartColours {
  readonly series: readonly string[]
  readonly ink: string
  readonly quiet: string
  readonly hairline: string
  readonly sheet: string
  readonly signal: string
}

const COLOURS: Record<'light' | 'dark', ChartColours> = {
  light: { series: SERIES.light, ...INKS.light },
  dark: { series: SERIES.dark, ...INKS.dark },
}

/** The colours of the scheme that shows. */
export function useChartColours(): ChartColours {
  const { mode, systemMode } = useColorScheme()
  return COLOURS[(mode === 'system' ? systemMode : mode) ?? 'light']
}

/** Draws a chart and keeps it as wide as its place; what it shows is also said in `label` and in a table beside it. */
export function Chart({
  option,
  height,
  label,
}: {
  option: EChartsCoreOption
  height: number
  label: string
}) {
  const place = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  useEffect(() => {
    if (!place.current) return
    const drawn = init(place.current)
    chart.current = drawn
    const watch = new ResizeObserver(() => {
      drawn.resize()
    })
    watch.observe(place.current)
    return () => {
      watch.disconnect()
      drawn.dispose()
    }
  }, [])
  useEffect(() => {
    chart.current?.setOption(option, { notMerge: true })
  }, [option])
  return <Box ref={place} role="img" aria-label={label} sx={{ height, width: '100%' }} />
}
