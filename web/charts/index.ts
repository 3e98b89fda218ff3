export { Chart, useChartColours } from './Chart.tsx'
export type { Chosen } from './Chart.tsx'
export { drawChart, saveFile } from './chartFiles.ts'
export type { ChartFile } from './chartFiles.ts'
