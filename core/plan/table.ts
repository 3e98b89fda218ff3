import Papa from 'papaparse'

/** A table out of a file or the clipboard: rows of cells as text, and on which line of the file each begins. */
export interface Table {
  readonly rows: readonly (readonly string[])[]
  readonly delimiter: string
}

export const DELIMITERS = [',', ';', '\t', '|'] as const

/** The text of the file is no table: it says where. */
export class UnreadableTable extends Error {
  override readonly name = 'UnreadableTable'
}

/**
 * Which sign parts the cells: the one that parts most lines of the beginning into the same number of
 * cells, at least two. A comma where none does (RFC 4180).
 */
export function detectDelimiter(text: string): string {
  const head = text.slice(0, 65_536)
  let best = { delimiter: ',', score: 0 }
  for (const delimiter of DELIMITERS) {
    const { data } = Papa.parse<string[]>(head, { delimiter, preview: 40, skipEmptyLines: 'greedy' })
    const widths = data.map((row) => row.length)
    const width = widths[0] ?? 0
    if (width < 2) continue
    const score = (widths.filter((each) => each === width).length / widths.length) * Math.log2(width + 1)
    if (score > best.score + 1e-9) best = { delimiter, score }
  }
  return best.delimiter
}

/**
 * Reads delimited text as RFC 4180 has it: quotes, doubled quotes, line breaks within quotes, CRLF, LF or
 * CR. Lines that are empty are passed over; a byte order mark is no part of the first cell.
 *
 * @throws UnreadableTable where a quotation mark is never closed
 */
export function readTable(text: string, delimiter?: string): Table {
  const body = text.startsWith('\ufeff') ? text.slice(1) : text
  const parted = delimiter ?? detectDelimiter(body)
  const { data, errors } = Papa.parse<string[]>(body, { delimiter: parted, skipEmptyLines: false })
  const open = errors.find(({ code }) => code === 'MissingQuotes')
  if (open)
    throw new UnreadableTable(
      `A quotation mark in row ${String((open.row ?? 0) + 1)} is never closed, so the rest of the file would be one cell. Close it and try again.`,
    )
  return { rows: data.filter((row) => row.some((cell) => cell.trim() !== '')), delimiter: parted }
}

/** Writes rows as delimited text; cells are quoted where they must be (RFC 4180), lines end with CRLF. */
export function writeTable(rows: readonly (readonly string[])[], delimiter = ','): string {
  return Papa.unparse(
    rows.map((row) => [...row]),
    { delimiter, newline: '\r\n' },
  )
}

/** Signs a spreadsheet takes for the beginning of a formula, full-width ones too. Common practice, no published source. */
const FORMULA = /^'*[=+\-@\t\r＝＋－＠]/
const GUARDED = /^'+[=+\-@\t\r＝＋－＠]/

/** A text cell that no spreadsheet runs: one apostrophe is put before what would begin a formula. */
export function escapeFormula(text: string): string {
  return FORMULA.test(text) ? `'${text}` : text
}

/** Takes that apostrophe away again: `unescapeFormula(escapeFormula(text))` is `text` for every text. */
export function unescapeFormula(text: string): string {
  return GUARDED.test(text) ? text.slice(1) : text
}
