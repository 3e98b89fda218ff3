export { fileColumns, planColumns } from './columns.ts'
export type { CellSet, PlanColumn, PlanRow } from './columns.ts'
export { CELL_MAX, COLUMNS_MAX, cutCell, tableFault } from './tableSize.ts'
export {
  fileNamePattern,
  IMPORT_BYTES_MAX,
  IMPORT_LINES_MAX,
  planApi,
  planFile,
  planImport,
  planView,
  preferences,
} from './contract.ts'
export type { ImportLine, PlanFile, PlanImport, PlanView, Preferences } from './contract.ts'
export { dryRun } from './dryRun.ts'
export { LINE_VERDICTS } from './planLine.ts'
export type {
  DryRunOptions,
  KnownPiece,
  KnownRoute,
  LineAction,
  LineVerdict,
  NewPiece,
  PlanLine,
  PlanWorld,
  WantedRoute,
} from './planLine.ts'
export { decodeBytes, detectEncoding, ENCODINGS } from './encoding.ts'
export type { Encoding } from './encoding.ts'
export {
  FILE_NAME_FIELDS,
  FILE_NAME_PATTERN_USUAL,
  fileNameFault,
  fileNamer,
  filledPattern,
  plainFileName,
} from './fileNames.ts'
export { detectMapping, headingForm, looksLikeHeadings } from './headers.ts'
export type { Mapping } from './headers.ts'
export { readMeasure, readMoney, readNumber, readPoint } from './reading.ts'
export {
  DELIMITERS,
  detectDelimiter,
  escapeFormula,
  readTable,
  unescapeFormula,
  UnreadableTable,
  writeTable,
} from './table.ts'
export type { Table } from './table.ts'
export { PLAIN_STYLE, styleNamed, unknownStyle } from './styleNamed.ts'
export type { FileNameFields } from './fileNames.ts'
