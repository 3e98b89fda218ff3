import { codesApi, type Code } from '@flimbo/core/codes'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useChange } from '../api/index.ts'
import { cellActions, type CellActions } from './cellActions.ts'
import { run, type GridParts, type Latest, type Selected } from './gridParts.ts'
import type { SelectionActions } from './SelectionBar.tsx'
import { NONE, selectionActions } from './selectionActions.ts'
import type { Listing } from '../codes/index.ts'

/** Everything the grid can be told to do. */
export interface GridActions extends CellActions {
  readonly open: (row: Code) => void
  readonly toggle: (id: number, piece: number, extend: boolean) => void
  readonly chooseAll: () => void
  readonly undo: () => void
  readonly redo: () => void
  readonly sortBy: (sort: Listing['sort'], order: Listing['order']) => void
  readonly resize: (id: string, width: number) => void
  readonly resized: () => void
  readonly closeGroup: (key: string) => void
}

type Parts = Omit<GridParts, 'selected' | 'setSelected' | 'copyPieces'>

/** The actions of the grid and of its selection, and what is selected. They stay the same while the parts change. */
export function useGridActions(parts: Parts): {
  grid: GridActions
  selection: SelectionActions
  selected: Selected
  selectedCount: number
} {
  const [selected, setSelected] = useState<Selected>(NONE)
  const copy = useChange(codesApi.copy)
  const all: GridParts = {
    ...parts,
    selected,
    setSelected,
    copyPieces: (ids) => copy.mutateAsync({ body: { ids } }),
  }
  const latest = useRef(all)
  useEffect(() => {
    latest.current = all
  })
  // Another list is another choice.
  useEffect(() => {
    setSelected(NONE)
  }, [parts.listing])
  const actions = useMemo(
    () => ({
      grid: {
        ...cellActions(latest),
        ...choiceActions(latest),
        ...viewActions(latest),
      },
      selection: selectionActions(latest),
    }),
    [],
  )
  return { ...actions, selected, selectedCount: selected === 'all' ? parts.total : selected.size }
}

/** Which pieces are selected. */
function choiceActions(latest: Latest): Pick<GridActions, 'toggle' | 'chooseAll'> {
  let lastToggled = 0
  const select = (change: (old: Selected) => Selected) => {
    latest.current.setSelected(change)
  }
  const idsBetween = async (first: number, last: number) =>
    (await latest.current.blocks.between(first, last)).map(({ id }) => id)
  return {
    toggle(id, piece, extend) {
      const from = lastToggled
      lastToggled = piece
      if (extend)
        run(latest, async () => {
          const ids = await idsBetween(Math.min(from, piece), Math.max(from, piece))
          select((old) => new Set([...(old === 'all' ? [] : old), ...ids]))
        })
      else if (latest.current.selected === 'all')
        run(latest, async () => {
          const ids = await idsBetween(0, latest.current.total - 1)
          select(() => new Set(ids.filter((each) => each !== id)))
        })
      else
        select((old) => {
          const next = new Set(old === 'all' ? [] : old)
          if (!next.delete(id)) next.add(id)
          return next
        })
    },
    chooseAll() {
      select((old) => (old === 'all' ? NONE : 'all'))
    },
  }
}

/** How the grid is arranged, and what is opened from it. */
function viewActions(latest: Latest): Omit<GridActions, keyof CellActions | 'toggle' | 'chooseAll'> {
  return {
    open: ({ id }) => {
      latest.current.open(id)
    },
    undo: () => {
      latest.current.edits.undo()
    },
    redo: () => {
      latest.current.edits.redo()
    },
    sortBy(sort, order) {
      const { arrangement } = latest.current
      arrangement.setOrder({ ...arrangement.order, sort, order })
    },
    resize: (id, width) => {
      latest.current.arrangement.resize(id, width)
    },
    resized: () => {
      latest.current.arrangement.resized()
    },
    closeGroup: (key) => {
      latest.current.setClosed((old) => {
        const next = new Set(old)
        if (!next.delete(key)) next.add(key)
        return next
      })
    },
  }
}
