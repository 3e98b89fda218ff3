/** So many columns of a file are read; a plan has some thirty. */
export const COLUMNS_MAX = 500
/** So many characters of a cell are kept: more than any column takes, so that what is cut is refused with its line. */
export const CELL_MAX = 10_000

/** Why a table is too wide to be a plan, in a sentence; null where it is not. */
export function tableFault(rows: readonly (readonly string[])[]): string | null {
  const at = rows.findIndex((row) => row.length > COLUMNS_MAX)
  if (at < 0) return null
  const [line, columns] = [at + 1, rows[at]?.length ?? 0].map((n) => n.toLocaleString('en-GB'))
  return `Line ${line ?? ''} has ${columns ?? ''} columns; a plan has at most ${String(COLUMNS_MAX)}. Is this the right file, and its separator right?`
}

/** A cell without what is too long in it to be read. */
export function cutCell(cell: string): string {
  return cell.length > CELL_MAX ? cell.slice(0, CELL_MAX) : cell
}
