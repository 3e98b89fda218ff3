import { escapeFormula, writeTable } from '@flimbo/core/plan'

/** So many different texts are kept as they are written: most of a file is the same few places, devices and codes. */
const TEXTS_MAX = 50_000
const texts = new Map<string, string>()

function writtenText(text: string): string {
  const known = texts.get(text)
  if (known !== undefined) return known
  if (texts.size >= TEXTS_MAX) texts.clear()
  const fresh = writeTable([[escapeFormula(text)]])
  texts.set(text, fresh)
  return fresh
}

/** A cell as it stands in a file. Only text can be taken for a formula: a minus before a latitude is none. */
export const csvCell = (cell: string | number): string =>
  typeof cell === 'number' ? String(cell) : writtenText(cell)

/** A moment (UTC ms) by ISO 8601. */
export const csvMoment = (at: number): string => new Date(at).toISOString()

/** A line of cells that are written (RFC 4180). */
export const csvRow = (cells: readonly string[]): string => `${cells.join(',')}\r\n`
