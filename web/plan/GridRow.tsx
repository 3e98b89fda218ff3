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

/** The looks of rows and cells, as rules of the grid: thousands of them are drawn while somebody scrolls, so none has a style of its own. */
export const ROW_LOOKS = {
  '& .plan-row': {
    position: 'absolute',
    left: 0,
    height: ROW_PX,
    display: 'flex',
    borderBottom: 1,
    borderColor: 'divider',
    bgcolor: 'background.paper',
  },
  '& .plan-row[aria-selected=true], & .plan-row.inspected': { bgcolor: 'background.default' },
  '& .plan-row.inspected': { boxShadow: 'inset 3px 0 var(--mui-palette-primary-main)' },
  '& .plan-mark': { width: MARK_PX, flexShrink: 0, display: 'grid', placeItems: 'center', cursor: 'pointer' },
  '& .plan-mark > span': {
    width: 16,
    height: 16,
    boxSizing: 'border-box',
    borderRadius: 0.5,
    border: '1.5px solid',
    borderColor: 'text.secondary',
    fontSize: 12,
    lineHeight: '13px',
    textAlign: 'center',
  },
  '& .plan-row[aria-selected=true] .plan-mark > span': {
    borderColor: 'primary.main',
    bgcolor: 'primary.main',
    color: 'primary.contrastText',
  },
  '& .plan-cell': {
    flexShrink: 0,
    boxSizing: 'border-box',
    px: 1,
    display: 'flex',
    alignItems: 'center',
    minWidth: 0,
    userSelect: 'none',
  },
  '& .plan-cell.right': { justifyContent: 'flex-end' },
  '& .plan-cell[aria-readonly=true]': { color: 'text.secondary' },
  '& .plan-cell[aria-selected=true]': { bgcolor: 'action.hover' },
  '& .plan-cell.active': { outline: '2px solid', outlineColor: 'primary.main', outlineOffset: -2 },
  '& .plan-text': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', minWidth: 0 },
  '& .plan-text.waiting': { opacity: 0.7 },
  '& .plan-loading': { height: 8, width: '60%', bgcolor: 'action.hover', borderRadius: 1 },
  '& .mono': { fontFamily: '"Atkinson Hyperlegible Mono Variable", ui-monospace, monospace' },
  '& .quiet': { color: 'text.secondary' },
  '& .alert': { color: 'warning.main', fontWeight: 650 },
  '& .live-mark': { color: 'primary.main' },
  '& .paused-mark': { color: 'warning.main' },
} as const

function CellText({
  row,
  column,
  waiting,
}: {
  row: Code | undefined
  column: GridColumn
  waiting: ReactNode
}) {
  if (!row) return <span aria-hidden className="plan-loading" />
  return (
    <span className={waiting === undefined ? 'plan-text' : 'plan-text waiting'}>
      {waiting ?? (column.render ? column.render(row) : column.text(row))}
    </span>
  )
}

/** One piece of the plan. */
export const GridRow = memo(function GridRow({
  row,
  piece,
  top,
  columns,
  widths,
  width,
  chosen,
  inspected,
  range,
  activeColumn,
  editor,
  pending,
  press,
  enter,
  edit,
  toggle,
}: Props) {
  return (
    <div
      role="row"
      aria-rowindex={piece + 2}
      aria-selected={chosen}
      className={inspected ? 'plan-row inspected' : 'plan-row'}
      style={{ width, transform: `translateY(${String(top)}px)` }}
    >
      <div
        role="gridcell"
        aria-colindex={1}
        className="plan-mark"
        aria-label={row ? `${chosen ? 'Selected' : 'Not selected'}: ${row.name}` : 'Loading'}
        onClick={(event) => {
          if (row) toggle(row.id, piece, event.shiftKey)
        }}
      >
        <span aria-hidden>{chosen ? '✓' : ''}</span>
      </div>
      {columns.map((column, j) => {
        const isActive = activeColumn === j
        const waiting = row && pending?.get(column.id)
        return (
          <div
            key={column.id}
            role="gridcell"
            id={cellId(piece, j)}
            aria-colindex={j + 2}
            aria-selected={range !== null && isWithin(range, piece, j)}
            aria-readonly={column.plan === null}
            className={`plan-cell${column.right ? ' right' : ''}${isActive ? ' active' : ''}`}
            style={{ width: widths[j] }}
            onMouseDown={(event) => {
              if (!isActive || editor === null) press(piece, j, event)
            }}
            onMouseEnter={(event) => {
              if (event.buttons === 1) enter(piece, j)
            }}
            onDoubleClick={() => {
              edit(piece, j)
            }}
          >
            {isActive && editor !== null ? editor : <CellText row={row} column={column} waiting={waiting} />}
          </div>
        )
      })}
    </div>
  )
})
