import type { RouteNumbers } from './cells.ts'
import type { GridColumn } from './columns.tsx'
import type { Selected } from './gridParts.ts'
import type { Lines } from './lines.ts'
import type { Cell } from './range.ts'
import type { Blocks, Listing } from './useBlocks.ts'
import type { GridActions } from './useGridActions.ts'

/** What the grid shows, and what it calls when somebody acts in it. */
export interface GridProps {
  readonly lines: Lines
  readonly total: number
  readonly blocks: Blocks
  readonly columns: readonly GridColumn[]
  readonly widths: readonly number[]
  readonly listing: Listing
  readonly selected: Selected
  /** The piece that stands in the inspector. */
  readonly inspected: number | null
  readonly active: Cell
  readonly setActive: (cell: Cell) => void
  readonly offers: Readonly<Partial<Record<NonNullable<GridColumn['offers']>, readonly string[]>>>
  readonly routes: RouteNumbers
  readonly actions: GridActions
  /** Is given the first and the last piece on the screen. */
  readonly onSeen: (first: number, last: number) => void
}
