import { z } from 'zod'

/** Sheets that printers and label makers use, in millimetres, upright (ISO 216; SRA3 of ISO 217; ANSI Letter). */
export const SHEET_SIZES = {
  A4: [210, 297],
  A3: [297, 420],
  SRA3: [320, 450],
  Letter: [215.9, 279.4],
} as const
export type SheetSize = keyof typeof SHEET_SIZES

const mm = (what: string, min: number, max: number) =>
  z.coerce
    .number({ error: `Give ${what} in millimetres.` })
    .min(min, `Make ${what} at least ${String(min)} mm.`)
    .max(max, `Make ${what} at most ${String(max)} mm.`)
const count = (what: string) =>
  z.coerce
    .number({ error: `Give ${what} as a whole number.` })
    .int(`Give ${what} as a whole number.`)
    .min(1, `Give at least 1 for ${what}.`)
    .max(100, `Give at most 100 for ${what}.`)

/** What stands on a cell beside the symbol: texts with fields of the piece, such as `{name}`. */
export const CAPTIONS_MAX = 3

/** How pieces are laid out on sheets: labels, cards or coasters in rows and columns. */
export const sheetLayout = z.strictObject({
  size: z.enum(['A4', 'A3', 'SRA3', 'Letter', 'own']).default('A4'),
  turned: z.enum(['upright', 'lying']).default('upright'),
  /** Of a sheet of one's own. */
  widthMm: mm('the sheet’s width', 20, 5000).default(210),
  heightMm: mm('the sheet’s height', 20, 5000).default(297),
  columns: count('the columns').default(3),
  rows: count('the rows').default(8),
  cellWidthMm: mm('a cell’s width', 5, 5000).default(60),
  cellHeightMm: mm('a cell’s height', 5, 5000).default(32),
  leftMm: mm('the left margin', 0, 1000).default(15),
  topMm: mm('the top margin', 0, 1000).default(15),
  gapXMm: mm('the gap between columns', 0, 500).default(0),
  gapYMm: mm('the gap between rows', 0, 500).default(0),
  /** The cell to begin with, from 1: those before it are used already. */
  start: z.coerce.number().int().min(1, 'Begin at cell 1 or later.').max(10_000).default(1),
  /** How often each piece stands on the sheets. */
  copies: z.coerce
    .number({ error: 'Give the copies as a whole number.' })
    .int('Give the copies as a whole number.')
    .min(1, 'Print each piece at least once.')
    .max(10_000, 'Print each piece at most 10,000 times.')
    .default(1),
  /** At the size that is planned, or as large as the cell has room for. */
  fit: z.enum(['planned', 'cell']).default('cell'),
  captions: z.array(z.string().max(200)).max(CAPTIONS_MAX).default([]),
  marks: z.enum(['none', 'cut', 'cut-and-registration']).default('none'),
})
export type SheetLayout = z.output<typeof sheetLayout>
export const DEFAULT_SHEET: SheetLayout = sheetLayout.parse({})

/** A place on a sheet, in millimetres from its upper left corner. */
export interface Cell {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** A side of a sheet, in millimetres. */
export function sheetSides({ size, turned, widthMm, heightMm }: SheetLayout): {
  width: number
  height: number
} {
  if (size === 'own') return { width: widthMm, height: heightMm }
  const [short, long] = SHEET_SIZES[size]
  return turned === 'lying' ? { width: long, height: short } : { width: short, height: long }
}

/** The cells of a sheet, row by row from the upper left. */
export function sheetCells(layout: SheetLayout): Cell[] {
  const { columns, rows, cellWidthMm: width, cellHeightMm: height, leftMm, topMm, gapXMm, gapYMm } = layout
  return Array.from({ length: rows * columns }, (_each, i) => ({
    x: leftMm + (i % columns) * (width + gapXMm),
    y: topMm + Math.floor(i / columns) * (height + gapYMm),
    width,
    height,
  }))
}

const HAIR = 1e-6
const said = (value: number) => String(Math.round(value * 100) / 100)

/** What is wrong with a layout, and at which field; empty where nothing is. */
export function sheetFaults(layout: SheetLayout): { path: 'columns' | 'rows' | 'start'; message: string }[] {
  const { width, height } = sheetSides(layout)
  const { columns, rows, cellWidthMm, cellHeightMm, leftMm, topMm, gapXMm, gapYMm, start } = layout
  const across = leftMm + columns * cellWidthMm + (columns - 1) * gapXMm
  const down = topMm + rows * cellHeightMm + (rows - 1) * gapYMm
  const faults: ReturnType<typeof sheetFaults> = []
  if (across > width + HAIR)
    faults.push({
      path: 'columns',
      message: `${String(columns)} columns reach ${said(across)} mm from the left; the sheet is ${said(width)} mm wide.`,
    })
  if (down > height + HAIR)
    faults.push({
      path: 'rows',
      message: `${String(rows)} rows reach ${said(down)} mm from the top; the sheet is ${said(height)} mm high.`,
    })
  if (start > rows * columns)
    faults.push({
      path: 'start',
      message: `A sheet has ${String(rows * columns)} cells. Begin at one of them.`,
    })
  return faults
}

/** How many sheets so many pieces take. */
export function sheetCount(layout: SheetLayout, pieces: number): number {
  const { rows, columns, start, copies } = layout
  return Math.ceil((start - 1 + pieces * copies) / (rows * columns))
}
