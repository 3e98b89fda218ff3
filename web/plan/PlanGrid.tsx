import { Box } from '@mui/material'
import { CellEditor } from './CellEditor.tsx'
import { GridHead } from './GridHead.tsx'
import type { Selected } from './gridParts.ts'
import type { GridProps } from './gridProps.ts'
import { cellId, GridRow, ROW_LOOKS } from './GridRow.tsx'
import { GroupLine } from './GroupLine.tsx'
import { rangeOn } from './range.ts'
import { StaticHeading, StaticRow } from './StaticRow.tsx'
import { useCellEditing } from './useCellEditing.ts'
import { useGridEvents } from './useGridEvents.ts'
import { useGridView } from './useGridView.ts'

function extent(selected: Selected): 'none' | 'some' | 'all' {
  if (selected === 'all') return 'all'
  return selected.size > 0 ? 'some' : 'none'
}

/** The grid: rows are drawn only where they are seen, cells are moved among, chosen, edited, copied and pasted by keyboard. */
export function PlanGrid(props: GridProps) {
  const { lines, total, blocks, statics, columns, widths, listing, selected, active, actions } = props
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

  const { press, enter, onCopy, onPaste, onKeyDown } = useGridEvents(props, view, editing)

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
          if (line.kind === 'static-heading')
            return (
              <StaticHeading
                key="static"
                top={start}
                width={width}
                columns={columns.length}
                count={statics.length}
              />
            )
          if (line.kind === 'static') {
            const code = statics[line.at]
            return (
              code && (
                <StaticRow
                  key={`static ${String(code.id)}`}
                  code={code}
                  top={start}
                  width={width}
                  columns={columns}
                  widths={widths}
                />
              )
            )
          }
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
