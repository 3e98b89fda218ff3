import { z } from 'zod'
import { ENCODINGS, type PlanImport, type PlanLine } from '@flimbo/core/plan'
import type { SheetRead } from './sheets.ts'

/** A table as it was read from a file that was handed in. */
export type ReadTable = Extract<SheetRead, { ok: true }>

const reading = z.object({ encoding: z.enum(ENCODINGS), delimiter: z.string() })

/** How a file that was handed in is read and what is to be done with it, as its job keeps it. */
export const importOrder = z.object({
  fileName: z.string(),
  /** How it is read: as it looks by itself, or as somebody said. */
  reading: reading.extend({ sheet: z.string() }),
  /** What it looked like by itself. */
  detected: reading,
  headings: z.boolean(),
  mapping: z.array(z.string().nullable()),
  empty: z.enum(['leave', 'clear']),
  fix: z.boolean(),
  /** Whether lines that are refused are left out, or keep everything out. */
  goodOnly: z.boolean(),
})
export type ImportOrder = z.infer<typeof importOrder>

/** What a file would do. */
export interface Judgement {
  readonly lines: readonly PlanLine[]
  readonly counts: PlanImport['counts']
  /** The edition of the workspace the lines were judged in; under another they are judged anew before anything is done. */
  readonly edition: number
}

const SAMPLED = 3
const SAMPLE_MAX = 80

/** The lines of a table below its headings. */
export const rowsOf = (table: ReadTable, { headings }: Pick<ImportOrder, 'headings'>) =>
  headings ? table.rows.slice(1) : table.rows

/** The headings of a table, one for each of its columns; empty where it has none. */
export function headingsOf(table: ReadTable, { headings }: Pick<ImportOrder, 'headings'>): string[] {
  const width = Math.max(0, ...table.rows.slice(0, 100).map((row) => row.length))
  const first = headings ? (table.rows[0] ?? []) : []
  return Array.from({ length: width }, (_, i) => first[i] ?? '')
}

/** Every column of a file with the first few cells of it, and what it stands for. */
export function columnsOf(table: ReadTable, order: ImportOrder): PlanImport['columns'] {
  const rows = rowsOf(table, order).slice(0, SAMPLED)
  const headings = headingsOf(table, order)
  return order.mapping.map((to, i) => ({
    heading: headings[i] ?? '',
    sample: rows.map((row) => (row[i] ?? '').slice(0, SAMPLE_MAX)),
    to,
  }))
}
