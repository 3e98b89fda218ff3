import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import {
  BarChart,
  HeatmapChart,
  LineChart,
  LinesChart,
  MapChart,
  SankeyChart,
  ScatterChart,
} from 'echarts/charts'
import {
  AriaComponent,
  GeoComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TitleComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components'
import { init, registerMap, setPlatformAPI, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { Topology } from 'topojson-specification'
import { codedShapes, COUNTRY_MAP } from '@flimbo/core/charts'
import { REPORT_CHART_PX, type ReportPart } from '@flimbo/core/reports'
import { escapeMarkup, trusted, type Markup } from '@flimbo/core/fields'
import { readSvg, type SvgNode } from './svgTree.ts'
import { widthOfText } from './fonts.ts'

register([
  BarChart,
  HeatmapChart,
  LineChart,
  LinesChart,
  MapChart,
  SankeyChart,
  ScatterChart,
  AriaComponent,
  GeoComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TitleComponent,
  TooltipComponent,
  VisualMapComponent,
  SVGRenderer,
])

// Without a screen there is nothing to measure letters on: they are as wide as those of the font that is shipped.
setPlatformAPI({
  measureText: (text, font = '') => ({
    width: widthOfText(text, Number.parseFloat(/([\d.]+)px/.exec(font)?.[1] ?? '12'), /\bbold\b/.test(font)),
  }),
})

type ChartPart = Extract<ReportPart, { kind: 'chart' }>

/** Natural Earth, public domain: 1:110 million, as fine as a line is thick on a page. */
let hasMap = false
function loadMap(): void {
  if (hasMap) return
  const path = createRequire(import.meta.url).resolve('world-atlas/countries-110m.json')
  const shapes = codedShapes(JSON.parse(readFileSync(path, 'utf8')) as Topology)
  if (shapes) registerMap(COUNTRY_MAP, shapes as never)
  hasMap = true
}

/** Draws a chart as a page and a PDF both show it. */
export function chartTree({ option, height }: Pick<ChartPart, 'option' | 'height'>): SvgNode {
  if ('geo' in option) loadMap()
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: REPORT_CHART_PX, height })
  try {
    // What is hovered, zoomed or dragged is for screens.
    chart.setOption({ ...option, tooltip: { show: false } })
    return readSvg(chart.renderToSVGString())
  } finally {
    chart.dispose()
  }
}

/** Coordinates to a tenth of a pixel. */
const shorter = (path: string) =>
  path.replace(/-?\d+\.\d{2,}/g, (each) => String(Number(Number(each).toFixed(1))))

function written({ tag, attributes, children, text }: SvgNode): string {
  const all = Object.entries(attributes)
    .map(([name, value]) => ` ${name}="${escapeMarkup(name === 'd' ? shorter(value) : value)}"`)
    .join('')
  return `<${tag}${all}>${escapeMarkup(text)}${children.map(written).join('')}</${tag}>`
}

/** A chart as markup, as wide as its place. */
export function chartMarkup(part: ChartPart): Markup {
  const { attributes, ...drawing } = chartTree(part)
  const { xmlns = '', viewBox = `0 0 ${String(REPORT_CHART_PX)} ${String(part.height)}` } = attributes
  return trusted(written({ ...drawing, attributes: { xmlns, viewBox } }))
}
