import { readTable, writeTable } from '@flimbo/core/plan'

/** Cells as text that spreadsheets paste: parted by tabs, quoted where a cell has a tab or a line break of its own. */
export function blockText(rows: readonly (readonly string[])[]): string {
  return writeTable(rows, '\t')
}

/** Cells out of the clipboard; what is no table is one cell. The line break spreadsheets put at the end is no row. */
export function blockFrom(text: string): string[][] {
  const body = text.replace(/\r?\n$/, '')
  if (!/[\t\n\r]/.test(body)) return [[body]]
  try {
    const { rows } = readTable(body, '\t')
    return rows.map((row) => [...row])
  } catch {
    // A lone quotation mark is a letter here, not the beginning of a quoted cell.
    return body.split(/\r?\n/).map((line) => line.split('\t'))
  }
}
