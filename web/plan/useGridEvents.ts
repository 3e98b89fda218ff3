import { useCallback, type ClipboardEvent, type KeyboardEvent, type MouseEvent } from 'react'
import { textOfBlock } from './cells.ts'
import { blockFrom } from './clipboard.ts'
import type { GridProps } from './gridProps.ts'
import type { useCellEditing } from './useCellEditing.ts'
import { gridKey } from './useGridKeys.ts'
import type { useGridView } from './useGridView.ts'

const LEAST_COLUMN_PX = 44

/** What the mouse, the keys and the clipboard do to the grid. */
export function useGridEvents(
  props: GridProps,
  view: ReturnType<typeof useGridView>,
  editing: ReturnType<typeof useCellEditing>,
) {
  const { lines, total, blocks, columns, widths, active, actions } = props
  const { scroller, range, go, focus } = view
  const { isEditing, row, column, stop } = editing

  const press = useCallback(
    (piece: number, j: number, event: MouseEvent) => {
      if (event.button !== 0) return
      go({ piece, column: j }, event.shiftKey)
      stop()
      focus()
      event.preventDefault()
    },
    [go, focus, stop],
  )
  const enter = useCallback(
    (piece: number, j: number) => {
      go({ piece, column: j }, true)
    },
    [go],
  )

  function onCopy(event: ClipboardEvent): void {
    if (isEditing) return
    event.preventDefault()
    const rows = Array.from({ length: range.bottom - range.top + 1 }, (_, i) => blocks.at(range.top + i))
    const there = rows.flatMap((each) => each ?? [])
    if (there.length < rows.length) actions.copyFar(range)
    else
      event.clipboardData.setData(
        'text/plain',
        textOfBlock(there, columns.slice(range.left, range.right + 1)),
      )
    if (event.type === 'cut') actions.clear(range)
  }

  function onPaste(event: ClipboardEvent): void {
    if (isEditing) return
    event.preventDefault()
    actions.paste(blockFrom(event.clipboardData.getData('text/plain')), range)
  }

  function onKeyDown(event: KeyboardEvent): void {
    if (isEditing || event.target !== scroller.current) return
    gridKey(event, {
      active,
      pieces: total,
      columns: columns.length,
      page: view.linesShown(),
      step: (piece, by) => lines.step(piece, by),
      go,
      edit: () => {
        editing.begin(active.piece, active.column)
      },
      open: () => {
        if (row) actions.open(row)
      },
      toggle: () => {
        if (row) actions.toggle(row.id, active.piece, false)
      },
      chooseAll: actions.chooseAll,
      clear: () => {
        actions.clear(range)
      },
      fillDown: () => {
        actions.fillDown(range)
      },
      undo: actions.undo,
      redo: actions.redo,
      widen: (by) => {
        if (!column) return
        actions.resize(column.id, Math.max(LEAST_COLUMN_PX, (widths[active.column] ?? column.width) + by))
        actions.resized()
      },
    })
  }

  return { press, enter, onCopy, onPaste, onKeyDown }
}
