import type { ScanCell } from '../results/index.ts'
import { csvCell, csvMoment, csvRow } from './csvCells.ts'
import { cellOf, scanFileColumns, type ScanFileKind } from './scanFileColumns.ts'

export const csvHeadings = csvRow(scanFileColumns.map(({ heading }) => heading))

function written(kind: ScanFileKind, cell: ScanCell): string {
  if (cell === null) return ''
  return kind === 'moment' ? csvMoment(Number(cell)) : csvCell(cell)
}

/** Some scans as lines of the file. */
export const csvLines = (scans: readonly (readonly ScanCell[])[]): string =>
  scans
    .map((scan) => csvRow(scanFileColumns.map((column) => written(column.kind, cellOf(column, scan)))))
    .join('')
