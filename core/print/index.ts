export { printApi, printOrder, PROOFS_MAX, sheetOrder, SHEETS_MAX } from './contract.ts'
export type { PiecesOrder, PrintOrder, SheetOrder } from './contract.ts'
export { brokenRelease, release, RELEASE_FILES_MAX, releasedFile } from './release.ts'
export type { BrokenRelease, Release, ReleasedFile } from './release.ts'
export {
  CAPTIONS_MAX,
  DEFAULT_SHEET,
  SHEET_SIZES,
  sheetCells,
  sheetCount,
  sheetFaults,
  sheetLayout,
  sheetSides,
} from './sheet.ts'
export type { Cell, SheetLayout, SheetSize } from './sheet.ts'
