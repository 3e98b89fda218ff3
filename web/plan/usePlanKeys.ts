import type { Code } from '@flimbo/core/codes'
import type { RefObject } from 'react'
import { useKeys } from '../ui/index.ts'
import type { Edits } from './useEdits.ts'
import type { GridActions } from './useGridActions.ts'

interface Acts {
  /** The piece that the cursor stands on. */
  readonly row: () => Code | undefined
  readonly step: (by: number) => void
  /** Opens a piece with its destination selected; null for the one that is open. */
  readonly edit: (id: number | null) => void
  readonly grid: GridActions
  readonly add: () => void
  readonly edits: Edits
  readonly searchField: RefObject<HTMLInputElement | null>
}

/** The keys of the plan that hold wherever the focus is. */
export function usePlanKeys({ row, step, edit, grid, add, edits, searchField }: Acts): void {
  const withRow = (act: (row: Code) => void) => () => {
    const here = row()
    if (here) act(here)
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    e: () => {
      edit(row()?.id ?? null)
    },
    f: withRow(grid.fix),
    c: withRow(grid.copyAddress),
    n: add,
    '/': () => {
      searchField.current?.focus()
    },
    'ctrl+z': edits.undo,
    'ctrl+y': edits.redo,
  })
}
