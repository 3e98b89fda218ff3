export { answerTable, COUNTS, tableCsv } from './answerTable.ts'
export type { AnswerTable, ColumnForm, TableCell } from './answerTable.ts'
export { answerKinds, CHART_KINDS, CHART_NAMES, chartKinds } from './chartKind.ts'
export type { ChartKind } from './chartKind.ts'
export { CHART_COLOURS, INKS, SERIES, TEXT } from './colours.ts'
export type { ChartColours, Scheme } from './colours.ts'
export { codedShapes, namedShapes } from './countryShapes.ts'
export type { CountryShapes } from './countryShapes.ts'
export { drawAnswer } from './drawAnswer.ts'
export type { DrawnChart } from './drawAnswer.ts'
export { beforeOf } from './drawn.ts'
export type { ChartMark, ExpectedPiece, ChartOption, Drawn } from './drawn.ts'
export { onwardStreams, streamsOf } from './flowChart.ts'
export type { Stream } from './flowChart.ts'
export {
  answerInWords,
  besideFigure,
  heldInWords,
  NOTHING_COUNTED,
  whereHeld,
  changeInWords,
  changeOf,
  filtersInWords,
  markInWords,
  questionTitle,
} from './inWords.ts'
export { intervalsChart } from './intervalsChart.ts'
export type { BoundedFigure } from './intervalsChart.ts'
export { keyLabel, keyLabels, rowLabels } from './keyLabels.ts'
export { lastHourChart } from './lastHourChart.ts'
export { linesOf } from './linesChart.ts'
export type { Lines } from './linesChart.ts'
export { COUNTRY_MAP, MAP_SHAPE, mapChart, mapView } from './mapChart.ts'
export { measureShort, measureText } from './measureText.ts'
export { chartMarks, crossedTimeKeys, drawMap, drawShown, kindFor, plainKind } from './shownAnswer.ts'
export type { ShownAnswer } from './shownAnswer.ts'
