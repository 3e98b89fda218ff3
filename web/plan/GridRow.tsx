import { Box } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { memo, type ReactNode } from 'react'
import type { GridColumn } from './columns.tsx'
import { isWithin, type Range } from './range.ts'

export const ROW_PX = 40
export const MARK_PX = 36

/** What a row must know; it is drawn anew only where one of these is another. */
interface Props {
  row: Code | undefined
  piece: number
  top: number
  columns: readonly GridColumn[]
  widths: readonly number[]
  width: number
  chosen: boolean
  inspected: boolean
  /** The chosen block of cells, where it touches this row. */
  range: Range | null
  activeColumn: number | null
  editor: ReactNode
  pending: ReadonlyMap<string, string> | null
  press: (piece: number, column: number, event: React.MouseEvent) => void
  enter: (piece: number, column: number) => void
  edit: (piece: number, column: number) => void
  toggle: (id: number, piece: number, extend: boolean) => void
}

export const cellId = (piece: number, column: number) => `cell-${String(piece)}-${String(column)}`

/** One piece of the plan. */
export const GridRow = memo(function GridRow({ row, piece, top, columns, widths, width, chosen, inspected, range, activeColumn, editor, pending, press, enter, edit, toggle }: Props) {
  return (
    <Box
      role="row" aria-rowindex={piece + 2} aria-selected={chosen}
      sx={{ position: 'absolute', left: 0, width, height: ROW_PX, display: 'flex', borderBottom: 1, borderColor: 'divider', bgcolor: inspected || chosen ? 'background.default' : 'background.paper', boxShadow: inspected ? 'inset 3px 0 var(--mui-palette-primary-main)' : 'none' }}
      style={{ transform: `translateY(${String(top)}px)` }}
    >
      <Box
        role="gridcell" aria-colindex={1} aria-label={row ? `${chosen ? 'Chosen' : 'Not chosen'}: ${row.name}` : 'Loading'} onClick={(event) => { if (row) toggle(row.id, piece, event.shiftKey) }}
        sx={{ width: MARK_PX, flexShrink: 0, display: 'grid', placeItems: 'center', cursor: 'pointer' }}
      >
        <Box aria-hidden sx={{ width: 16, height: 16, borderRadius: 0.5, border: 1.5, borderColor: chosen ? 'primary.main' : 'text.secondary', bgcolor: chosen ? 'primary.main' : 'transparent', color: 'primary.contrastText', fontSize: 12, lineHeight: '14px', textAlign: 'center' }}>{chosen ? '✓' : ''}</Box>
      </Box>
      {columns.map((column, j) => {
        const isActive = activeColumn === j
        const within = range !== null && isWithin(range, piece, j)
        const waiting = row && pending?.get(column.id)
        return (
          <Box
            key={column.id} role="gridcell" id={cellId(piece, j)} aria-colindex={j + 2} aria-selected={within} aria-readonly={column.plan === null}
            onMouseDown={(event) => { if (!isActive || editor === null) press(piece, j, event) }} onMouseEnter={(event) => { if (event.buttons === 1) enter(piece, j) }} onDoubleClick={() => { edit(piece, j) }}
            sx={{
              width: widths[j], flexShrink: 0, px: 1, display: 'flex', alignItems: 'center', justifyContent: column.right ? 'flex-end' : 'flex-start', minWidth: 0, userSelect: 'none',
              bgcolor: within ? 'action.hover' : undefined, outline: isActive ? 2 : 0, outlineStyle: 'solid', outlineColor: 'primary.main', outlineOffset: -2, color: column.plan ? 'text.primary' : 'text.secondary',
            }}
          >
            {isActive && editor !== null ? editor : row
              ? <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: 0, opacity: waiting === undefined ? 1 : 0.7 }}>{waiting ?? (column.render ? column.render(row) : column.text(row))}</Box>
              : <Box component="span" aria-hidden sx={{ height: 8, width: '60%', bgcolor: 'action.hover', borderRadius: 1 }} />}
          </Box>
        )
      })}
    </Box>
  )
})
