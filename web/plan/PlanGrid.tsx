import { Box } from '@mui/material'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { Code } from '@flimbo/core/codes'
import { useCallback, useEffect, useEffectEvent, useRef, useState, type ReactNode } from 'react'
import { counted, number } from '@flimbo/core/formats'
import { CellEditor, type Leaving } from './CellEditor.tsx'
import { readCell, textOfBlock, type RouteNumbers } from './cells.ts'
import { blockFrom } from './clipboard.ts'
import type { GridColumn } from './columns.tsx'
import { GridHead } from './GridHead.tsx'
import { cellId, GridRow, MARK_PX, ROW_LOOKS, ROW_PX } from './GridRow.tsx'
import type { Lines } from './lines.ts'
import { rangeOf, type Cell, type Range } from './range.ts'
import type { Blocks, Listing } from './useBlocks.ts'
import { gridKey } from './useGridKeys.ts'

export interface GridActions {
  readonly open: (row: Code) => void
  readonly toggle: (id: number, piece: number, extend: boolean) => void
  readonly chooseAll: () => void
  /** Saves one cell. */
  readonly keep: (row: Code, column: GridColumn, text: string) => Promise<unknown>
  readonly clear: (range: Range) => void
  readonly fillDown: (range: Range) => void
  readonly paste: (block: string[][], range: Range) => void
  /** Text of a block that is not all on the screen. */
  readonly copyFar: (range: Range) => void
  readonly undo: () => void
  readonly redo: () => void
  readonly sortBy: (sort: Listing['sort'], order: Listing['order']) => void
  readonly resize: (id: string, width: number) => void
  readonly resized: () => void
  readonly closeGroup: (key: string) => void
}

interface Props {
  lines: Lines
  total: number
  blocks: Blocks
  columns: readonly GridColumn[]
  widths: readonly number[]
  listing: Listing
  chosen: ReadonlySet<number> | 'all'
  inspected: number | null
  active: Cell
  setActive: (cell: Cell) => void
  offers: Readonly<Partial<Record<NonNullable<GridColumn['offers']>, readonly string[]>>>
  routes: RouteNumbers
  actions: GridActions
  /** Told which pieces are on the screen. */
  onSeen: (first: number, last: number) => void
}

const OVERSCAN = 6

function extent(chosen: ReadonlySet<number> | 'all'): 'none' | 'some' | 'all' {
  if (chosen === 'all') return 'all'
  return chosen.size > 0 ? 'some' : 'none'
}

/** The grid: rows are drawn only where they are seen, cells are moved among, chosen, edited, copied and pasted by keyboard. */
export function PlanGrid({
  lines,
  total,
  blocks,
  columns,
  widths,
  listing,
  chosen,
  inspected,
  active,
  setActive,
  offers,
  routes,
  actions,
  onSeen,
}: Props) {
  const scroller = useRef<HTMLDivElement>(null)
  const [anchor, setAnchor] = useState<Cell>(active)
  /** Where the grid itself moved to last. */
  const moved = useRef<Cell>(active)
  const [editing, setEditing] = useState(false)
  const [pending, setPending] = useState<ReadonlyMap<number, ReadonlyMap<string, string>>>(new Map())
  const virtual = useVirtualizer({
    count: lines.count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
    scrollPaddingStart: ROW_PX,
    scrollPaddingEnd: 8,
  })
  const items = virtual.getVirtualItems()
  const width = MARK_PX + widths.reduce((sum, each) => sum + each, 0)
  const range = rangeOf(anchor, active)
  const row = blocks.at(active.piece)
  const column = columns[active.column]

  const seen = items.flatMap(({ index }) => {
    const line = lines.at(index)
    return line.kind === 'piece' ? [line.piece] : []
  })
  const [firstSeen = 0, lastSeen = 0] = [seen[0], seen.at(-1)]
  useEffect(() => {
    onSeen(firstSeen, lastSeen)
  }, [firstSeen, lastSeen, onSeen])
  // A cell that was chosen outside of the grid, by J and K or by a link, is a choice of its own.
  const anchorActive = useEffectEvent(() => {
    if (moved.current.piece !== active.piece || moved.current.column !== active.column) setAnchor(active)
  })
  const scrollToRow = useEffectEvent((piece: number) => {
    const line = lines.lineOf(piece)
    if (line !== null) virtual.scrollToIndex(line, { align: 'auto' })
  })
  const scrollToColumn = useEffectEvent(() => {
    const left = MARK_PX + widths.slice(0, active.column).reduce((sum, each) => sum + each, 0)
    const view = scroller.current
    if (!view) return
    if (left < view.scrollLeft + MARK_PX) view.scrollLeft = left - MARK_PX
    else if (left + (widths[active.column] ?? 0) > view.scrollLeft + view.clientWidth)
      view.scrollLeft = left + (widths[active.column] ?? 0) - view.clientWidth
  })
  useEffect(() => {
    anchorActive()
  }, [active.piece, active.column])
  // Only a move of the active cell scrolls.
  useEffect(() => {
    scrollToRow(active.piece)
  }, [active.piece])
  useEffect(() => {
    scrollToColumn()
  }, [active.column])

  const go = useCallback(
    (to: Cell, extend: boolean) => {
      moved.current = to
      setActive(to)
      if (!extend) setAnchor(to)
    },
    [setActive],
  )
  const focusGrid = () => {
    scroller.current?.focus({ preventScroll: true })
  }
  const beginEdit = () => {
    if (!row || !column) return
    if (column.plan) setEditing(true)
    else actions.open(row)
  }

  const press = useCallback(
    (piece: number, j: number, event: React.MouseEvent) => {
      if (event.button !== 0) return
      go({ piece, column: j }, event.shiftKey)
      setEditing(false)
      scroller.current?.focus({ preventScroll: true })
      event.preventDefault()
    },
    [go],
  )
  const enter = useCallback(
    (piece: number, j: number) => {
      go({ piece, column: j }, true)
    },
    [go],
  )
  const editors = useRef({ columns, blocks, open: actions.open })
  useEffect(() => {
    editors.current = { columns, blocks, open: actions.open }
  })
  const edit = useCallback((piece: number, j: number) => {
    const there = editors.current.blocks.at(piece)
    if (!there) return
    if (editors.current.columns[j]?.plan) setEditing(true)
    else editors.current.open(there)
  }, [])

  function keep(text: string, leaving: Leaving): string | null {
    if (!row || !column) return null
    const reading = readCell(row, column, text, routes)
    if (!reading.ok) return reading.sentence
    setEditing(false)
    if (leaving !== 'stay') {
      focusGrid()
      const by = { down: [1, 0], up: [-1, 0], right: [0, 1], left: [0, -1] }[leaving]
      go(
        {
          piece: by[0] === 0 ? active.piece : lines.step(active.piece, by[0] ?? 0),
          column: Math.min(columns.length - 1, Math.max(0, active.column + (by[1] ?? 0))),
        },
        false,
      )
    }
    if (reading.set === null) return null
    const { id } = row
    setPending((old) => new Map(old).set(id, new Map(old.get(id)).set(column.id, text)))
    void actions.keep(row, column, text).finally(() => {
      setPending((old) => {
        const next = new Map(old)
        const cells = new Map(next.get(id))
        cells.delete(column.id)
        if (cells.size === 0) next.delete(id)
        else next.set(id, cells)
        return next
      })
    })
    return null
  }

  function onCopy(event: React.ClipboardEvent): void {
    if (editing) return
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

  function groupLine(index: number, start: number): ReactNode {
    const line = lines.at(index)
    if (line.kind !== 'group') return null
    const { group, closed } = line
    return (
      <Box
        key={`group ${group.key}`}
        role="row"
        onClick={() => {
          actions.closeGroup(group.key)
        }}
        sx={{
          position: 'absolute',
          left: 0,
          width,
          height: ROW_PX,
          display: 'flex',
          alignItems: 'center',
          bgcolor: 'background.default',
          borderBottom: 1,
          borderColor: 'divider',
          cursor: 'pointer',
        }}
        style={{ transform: `translateY(${String(start)}px)` }}
      >
        <Box
          role="gridcell"
          aria-colspan={columns.length + 1}
          sx={{ px: 1.5, display: 'flex', gap: 2, position: 'sticky', left: 0 }}
        >
          <Box component="span" sx={{ fontWeight: 650 }}>
            <Box component="span" aria-hidden>
              {closed ? '▸ ' : '▾ '}
            </Box>
            {group.key || '(none)'}
          </Box>
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {counted(group.pieces, 'piece')} · {counted(group.scans, 'scan')} · print run{' '}
            {number(group.printRun)} · cost {number(group.cost)}
          </Box>
        </Box>
      </Box>
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
      onPaste={(event) => {
        if (editing) return
        event.preventDefault()
        actions.paste(blockFrom(event.clipboardData.getData('text/plain')), range)
      }}
      onKeyDown={(event) => {
        if (editing || event.target !== scroller.current) return
        gridKey(event, {
          active,
          pieces: total,
          columns: columns.length,
          page: Math.max(1, Math.floor((scroller.current.clientHeight - ROW_PX) / ROW_PX) - 1),
          step: (piece, by) => lines.step(piece, by),
          go,
          edit: beginEdit,
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
            if (column) {
              actions.resize(column.id, Math.max(44, (widths[active.column] ?? column.width) + by))
              actions.resized()
            }
          },
        })
      }}
      sx={{
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
      }}
    >
      <GridHead
        columns={columns}
        widths={widths}
        width={width}
        listing={listing}
        chosen={extent(chosen)}
        sortBy={actions.sortBy}
        resize={actions.resize}
        resized={actions.resized}
        chooseAll={actions.chooseAll}
      />
      <Box role="presentation" sx={{ position: 'relative', width, height: virtual.getTotalSize() }}>
        {items.map(({ index, start }) => {
          const line = lines.at(index)
          if (line.kind === 'group') return groupLine(index, start)
          const { piece } = line
          const here = blocks.at(piece)
          const isActive = piece === active.piece
          return (
            <GridRow
              key={piece}
              row={here}
              piece={piece}
              top={start}
              columns={columns}
              widths={widths}
              width={width}
              chosen={here !== undefined && (chosen === 'all' || chosen.has(here.id))}
              inspected={here !== undefined && here.id === inspected}
              range={
                piece >= range.top &&
                piece <= range.bottom &&
                (range.top !== range.bottom || range.left !== range.right)
                  ? range
                  : null
              }
              activeColumn={isActive ? active.column : null}
              editor={
                isActive && editing && row && column ? (
                  <CellEditor
                    label={`${column.title} of ${row.name}`}
                    initial={column.text(row)}
                    offers={(column.offers && offers[column.offers]) ?? []}
                    right={column.right === true}
                    keep={keep}
                    drop={() => {
                      setEditing(false)
                      focusGrid()
                    }}
                  />
                ) : null
              }
              pending={here ? (pending.get(here.id) ?? null) : null}
              press={press}
              enter={enter}
              edit={edit}
              toggle={actions.toggle}
            />
          )
        })}
      </Box>
    </Box>
  )
}
