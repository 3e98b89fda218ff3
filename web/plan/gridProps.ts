import type { StaticCode } from '@flimbo/core/staticCodes'
import type { Named } from './cells.ts'
import type { GridColumn } from './columns.tsx'
import type { Selected } from './gridParts.ts'
import type { Lines } from './lines.ts'
import type { Cell } from './range.ts'
import type { Blocks, Listing } from '../codes/index.ts'
import type { GridActions } from './useGridActions.ts'

/** What the grid shows, and what it calls when somebody acts in it. */
export interface GridProps {
  readonly lines: Lines
  readonly total: number
  readonly blocks: Blocks
  /** The static codes that stand below the pieces. */
  readonly statics: readonly StaticCode[]
  readonly columns: readonly GridColumn[]
  readonly widths: readonly number[]
  readonly listing: Listing
  readonly selected: Selected
  /** The piece that stands in the inspector. */
  readonly inspected: number | null
  readonly active: Cell
  readonly setActive: (cell: Cell) => void
  readonly offers: Readonly<Partial<Record<NonNullable<GridColumn['offers']>, readonly string[]>>>
  readonly named: Named
  readonly actions: GridActions
  /** Is given the first and the last piece on the screen. */
  readonly onSeen: (first: number, last: number) => void
}
