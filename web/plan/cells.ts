import type { Code, CodeCellChange, CodeSet } from '@flimbo/core/codes'
import { styleNamed, unknownStyle } from '@flimbo/core/plan'
import { blockText } from './clipboard.ts'
import type { GridColumn } from './columns.tsx'

/** What cells may name: the campaign's routes by their names in small letters, and the house styles there are. */
export interface Named {
  readonly routes: ReadonlyMap<string, number>
  readonly styles: readonly { readonly id: number; readonly name: string }[]
}

export type CellReading =
  { readonly ok: true; readonly set: CodeSet | null } | { readonly ok: false; readonly sentence: string }

/** What a text would set in a column, whatever stands there now. */
export function readText(
  { plan, title }: GridColumn,
  typed: string,
  named: Named,
): { readonly ok: true; readonly set: CodeSet } | { readonly ok: false; readonly sentence: string } {
  if (!plan) return { ok: false, sentence: `${title} is only shown and cannot be written.` }
  if (typed.trim() === '' && !plan.optional) return { ok: false, sentence: `${title} cannot be empty.` }
  const read = plan.read(typed)
  if (!read.ok) return read
  const { route, style, campaign: _campaign, ...set } = read.value
  if (style !== undefined) {
    const styleId = styleNamed(style, named.styles)
    return styleId === undefined
      ? { ok: false, sentence: unknownStyle(style) }
      : { ok: true, set: { styleId } }
  }
  if (route === undefined) return { ok: true, set }
  const routeId = named.routes.get(route.toLowerCase())
  return routeId === undefined
    ? { ok: false, sentence: `There is no route “${route}” in this campaign. Make it on Routes first.` }
    : { ok: true, set: { routeId } }
}

/** What a text typed or pasted into a cell would set; null where it is what stands there already. */
export function readCell(row: Code, column: GridColumn, typed: string, named: Named): CellReading {
  if (column.plan && typed === column.text(row)) return { ok: true, set: null }
  const read = readText(column, typed, named)
  return read.ok && read.set.extra
    ? { ok: true, set: { ...read.set, extra: { ...row.extra, ...read.set.extra } } }
    : read
}

export interface BlockReading {
  readonly changes: CodeCellChange[]
  /** Cells that could not be read, as sentences. */
  readonly unread: string[]
}

/** What a block of texts would set, row by row; a row's cells are one change. `textAt` gives the text for a cell of the block, or null to leave it. */
export function readBlock(
  rows: readonly Code[],
  columns: readonly GridColumn[],
  named: Named,
  textAt: (row: number, column: number) => string | null,
): BlockReading {
  const changes: CodeCellChange[] = []
  const unread: string[] = []
  rows.forEach((row, i) => {
    let set: CodeSet = {}
    columns.forEach((column, j) => {
      const typed = textAt(i, j)
      if (typed === null) return
      const read = readCell(row, column, typed, named)
      if (!read.ok) unread.push(`${row.name}, ${column.title}: ${read.sentence}`)
      else if (read.set)
        set = {
          ...set,
          ...read.set,
          ...(read.set.extra ? { extra: { ...set.extra, ...read.set.extra } } : {}),
        }
    })
    if (Object.keys(set).length > 0) changes.push({ id: row.id, set })
  })
  return { changes, unread }
}

/** Cells as text for a spreadsheet. */
export function textOfBlock(rows: readonly Code[], columns: readonly GridColumn[]): string {
  return blockText(rows.map((row) => columns.map(({ text }) => text(row))))
}
