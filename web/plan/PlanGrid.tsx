import { Box } from '@mui/material'
import { useCallback, type ClipboardEvent, type KeyboardEvent, type MouseEvent } from 'react'
import { CellEditor } from './CellEditor.tsx'
import { textOfBlock, type RouteNumbers } from './cells.ts'
import { blockFrom } from './clipboard.ts'
import type { GridColumn } from './columns.tsx'
import { GridHead } from './GridHead.tsx'
import type { Selected } from './gridParts.ts'
import { cellId, GridRow, ROW_LOOKS } from './GridRow.tsx'
import { GroupLine } from './GroupLine.tsx'
import type { Lines } from './lines.ts'
import { rangeOn, type Cell } from './range.ts'
import type { Blocks, Listing } from './useBlocks.ts'
import { useCellEditing } from './useCellEditing.ts'
import type { GridActions } from './useGridActions.ts'
import { gridKey } from './useGridKeys.ts'
import { useGridView } from './useGridView.ts'

interface Props {
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

const LEAST_COLUMN_PX = 44

function extent(selected: Selected): 'none' | 'some' | 'all' {
  if (selected === 'all') return 'all'
  return selected.size > 0 ? 'some' : 'none'
}

/** The grid: rows are drawn only where they are seen, cells are moved among, chosen, edited, copied and pasted by keyboard. */
export function PlanGrid(props: Props) {
  const { lines, total, blocks, columns, widths, listing, selected, active, actions } = props
  const view = useGridView(props)
  const { scroller, items, width, range, go, focus } = view
  const editing = useCellEditing({
    ...props,
    go,
    focusGrid: focus,
    open: actions.open,
    save: actions.keep,
  })
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

  const pieceRow = (piece: number, top: number) => {
    const here = blocks.at(piece)
    const isActive = piece === active.piece
    return (
      <GridRow
        key={piece}
        row={here}
        piece={piece}
        top={top}
        columns={columns}
        widths={widths}
        width={width}
        chosen={here !== undefined && (selected === 'all' || selected.has(here.id))}
        inspected={here !== undefined && here.id === props.inspected}
        range={rangeOn(range, piece)}
        activeColumn={isActive ? active.column : null}
        editor={
          isActive && isEditing && row && column ? (
            <CellEditor
              label={`${column.title} of ${row.name}`}
              initial={column.text(row)}
              offers={(column.offers && props.offers[column.offers]) ?? []}
              right={column.right === true}
              keep={editing.keep}
              drop={() => {
                stop()
                focus()
              }}
            />
          ) : null
        }
        pending={here ? (editing.pending.get(here.id) ?? null) : null}
        press={press}
        enter={enter}
        edit={editing.begin}
        toggle={actions.toggle}
      />
    )
  }

  return (
    <Box
      ref={scroller}
      role="grid"
      aria-label="Pieces"
      aria-rowcount={total + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      tabIndex={0}
      aria-activedescendant={row ? cellId(active.piece, active.column) : undefined}
      onCopy={onCopy}
      onCut={onCopy}
      onPaste={onPaste}
      onKeyDown={onKeyDown}
      sx={LOOKS}
    >
      <GridHead
        columns={columns}
        widths={widths}
        width={width}
        listing={listing}
        chosen={extent(selected)}
        sortBy={actions.sortBy}
        resize={actions.resize}
        resized={actions.resized}
        chooseAll={actions.chooseAll}
      />
      <Box role="presentation" sx={{ position: 'relative', width, height: view.height }}>
        {items.map(({ index, start }) => {
          const line = lines.at(index)
          if (line.kind === 'piece') return pieceRow(line.piece, start)
          return (
            <GroupLine
              key={`group ${line.group.key}`}
              line={line}
              top={start}
              width={width}
              columns={columns.length}
              toggle={actions.closeGroup}
            />
          )
        })}
      </Box>
    </Box>
  )
}

const LOOKS = {
  ...ROW_LOOKS,
  flex: 1,
  minHeight: 0,
  overflow: 'auto',
  border: 1,
  borderColor: 'divider',
  borderRadius: 1,
  bgcolor: 'background.paper',
  fontSize: '0.8125rem',
  '&:focus-visible': {
    outline: 2,
    outlineStyle: 'solid',
    outlineColor: 'primary.main',
    outlineOffset: 1,
  },
}
