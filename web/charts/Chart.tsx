import { Box } from '@mui/material'
import { CHART_COLOURS, type ChartColours, type ChartOption } from '@flimbo/core/charts'
import { BarChart, HeatmapChart, LineChart, SankeyChart } from 'echarts/charts'
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TitleComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import { useScheme } from './useScheme.ts'

register([
  BarChart,
  HeatmapChart,
  LineChart,
  SankeyChart,
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TitleComponent,
  TooltipComponent,
  VisualMapComponent,
  CanvasRenderer,
])

/** The colours of the scheme that shows. */
export const useChartColours = (): ChartColours => CHART_COLOURS[useScheme()]

/** Which bar, point or cell was chosen: its place in its series, and the place of that. */
export interface Chosen {
  readonly dataIndex: number
  readonly seriesIndex: number
}

/** Draws a chart and keeps it as wide as its place; what it shows is also said in `label` and in a table beside it. */
export function Chart({
  option,
  height,
  label,
  choose,
}: {
  option: ChartOption
  height: number | string
  label: string
  choose?: (chosen: Chosen) => void
}) {
  const place = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const chooseNow = useRef(choose)
  useEffect(() => {
    chooseNow.current = choose
  })
  useEffect(() => {
    if (!place.current) return
    const drawn = init(place.current)
    chart.current = drawn
    drawn.on('click', ({ componentType, dataIndex, seriesIndex = 0 }) => {
      if (componentType === 'series') chooseNow.current?.({ dataIndex, seriesIndex })
    })
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
