import type { Code } from '@flimbo/core/codes'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Leaving } from './CellEditor.tsx'
import { readCell, type Named } from './cells.ts'
import type { GridColumn } from './columns.tsx'
import type { Lines } from './lines.ts'
import type { Cell } from './range.ts'
import type { Blocks } from '../codes/index.ts'

interface Given {
  readonly lines: Lines
  readonly blocks: Blocks
  readonly columns: readonly GridColumn[]
  readonly active: Cell
  readonly named: Named
  readonly open: (row: Code) => void
  readonly save: (row: Code, column: GridColumn, text: string) => Promise<unknown>
  readonly go: (to: Cell, extend: boolean) => void
  readonly focusGrid: () => void
}

const STEPS = { down: [1, 0], up: [-1, 0], right: [0, 1], left: [0, -1] } as const

/** The cell that is typed in, and what was typed until it is stored. */
export function useCellEditing(given: Given) {
  const { lines, blocks, columns, active, named, open, save, go, focusGrid } = given
  const [isEditing, setEditing] = useState(false)
  const { pending, add, settle } = usePending()
  const row = blocks.at(active.piece)
  const column = columns[active.column]

  const latest = useRef({ columns, blocks, open })
  useEffect(() => {
    latest.current = { columns, blocks, open }
  })
  /** Begins in a cell; one that cannot be typed in opens its piece. */
  const begin = useCallback((piece: number, j: number) => {
    const there = latest.current.blocks.at(piece)
    if (!there) return
    if (latest.current.columns[j]?.plan) setEditing(true)
    else latest.current.open(there)
  }, [])
  const stop = useCallback(() => {
    setEditing(false)
  }, [])

  function leave(leaving: Leaving): void {
    if (leaving === 'stay') return
    focusGrid()
    const [down, right] = STEPS[leaving]
    const piece = down === 0 ? active.piece : lines.step(active.piece, down)
    go({ piece, column: Math.min(columns.length - 1, Math.max(0, active.column + right)) }, false)
  }

  /** Takes what was typed and goes on to the next cell. @returns why it cannot be taken; null where it is */
  function keep(text: string, leaving: Leaving): string | null {
    if (!row || !column) return null
    const reading = readCell(row, column, text, named)
    if (!reading.ok) return reading.sentence
    setEditing(false)
    leave(leaving)
    if (reading.set === null) return null
    const cell = { id: row.id, column: column.id }
    add(cell, text)
    void save(row, column, text).finally(() => {
      settle(cell)
    })
    return null
  }
  return { isEditing, row, column, begin, stop, keep, pending }
}

interface CellKey {
  readonly id: number
  readonly column: string
}

/** Texts that are on their way to the server, by piece and column: they show meanwhile. */
function usePending() {
  const [pending, setPending] = useState<ReadonlyMap<number, ReadonlyMap<string, string>>>(new Map())
  const add = ({ id, column }: CellKey, text: string) => {
    setPending((old) => new Map(old).set(id, new Map(old.get(id)).set(column, text)))
  }
  const settle = ({ id, column }: CellKey) => {
    setPending((old) => {
      const next = new Map(old)
      const cells = new Map(next.get(id))
      cells.delete(column)
      if (cells.size === 0) next.delete(id)
      else next.set(id, cells)
      return next
    })
  }
  return { pending, add, settle }
}
