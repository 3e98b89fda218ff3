import { CHART_COLOURS, COUNTRY_MAP, drawMap, type ShownAnswer } from '@flimbo/core/charts'
import type { Point } from '@flimbo/core/conditions'
import { LinesChart, MapChart, ScatterChart } from 'echarts/charts'
import { GeoComponent } from 'echarts/components'
import { use as register } from 'echarts/core'
import { CHART_FILE_PX, loadMap } from '../charts/index.ts'
import type { OnPaper } from './TakeAway.tsx'

register([LinesChart, MapChart, ScatterChart, GeoComponent])

/** Resolves as soon as countries can be drawn. */
export const loadCountries = (): Promise<void> => loadMap(COUNTRY_MAP)

/** A map as it is taken away. */
export async function mapOnPaper(shown: ShownAnswer, piece: Point | null): Promise<OnPaper> {
  await loadCountries()
  return drawMap(shown, CHART_COLOURS.light, piece, CHART_FILE_PX)
}
