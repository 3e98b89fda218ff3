import { useVirtualizer } from '@tanstack/react-virtual'
import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react'
import { MARK_PX, ROW_PX } from './GridRow.tsx'
import type { Lines } from './lines.ts'
import { rangeOf, type Cell } from './range.ts'

const OVERSCAN = 6

interface Given {
  readonly lines: Lines
  /** Of each column, px. */
  readonly widths: readonly number[]
  readonly active: Cell
  readonly setActive: (cell: Cell) => void
  /** Is given the first and the last piece on the screen. */
  readonly onSeen: (first: number, last: number) => void
}

/** What of the grid is on the screen, which cells are chosen, and how one moves among them. */
export function useGridView({ lines, widths, active, setActive, onSeen }: Given) {
  const scroller = useRef<HTMLDivElement>(null)
  const [anchor, setAnchor] = useState<Cell>(active)
  /** Where the grid itself moved to last. */
  const moved = useRef<Cell>(active)
  const virtual = useVirtualizer({
    count: lines.count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
    scrollPaddingStart: ROW_PX,
    scrollPaddingEnd: 8,
  })
  const items = virtual.getVirtualItems()

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
  const scrollToColumn = useEffectEvent((column: number) => {
    const left = MARK_PX + widths.slice(0, column).reduce((sum, each) => sum + each, 0)
    const right = left + (widths[column] ?? 0)
    const view = scroller.current
    if (!view) return
    if (left < view.scrollLeft + MARK_PX) view.scrollLeft = left - MARK_PX
    else if (right > view.scrollLeft + view.clientWidth) view.scrollLeft = right - view.clientWidth
  })
  useEffect(() => {
    anchorActive()
  }, [active.piece, active.column])
  // Only a move of the active cell scrolls.
  useEffect(() => {
    scrollToRow(active.piece)
  }, [active.piece])
  useEffect(() => {
    scrollToColumn(active.column)
  }, [active.column])

  const go = useCallback(
    (to: Cell, extend: boolean) => {
      moved.current = to
      setActive(to)
      if (!extend) setAnchor(to)
    },
    [setActive],
  )
  const focus = useCallback(() => {
    scroller.current?.focus({ preventScroll: true })
  }, [])
  return {
    scroller,
    items,
    height: virtual.getTotalSize(),
    width: MARK_PX + widths.reduce((sum, each) => sum + each, 0),
    /** How many lines one screen shows, but for one to go on from. */
    linesShown: () => Math.max(1, Math.floor(((scroller.current?.clientHeight ?? 0) - ROW_PX) / ROW_PX) - 1),
    range: rangeOf(anchor, active),
    go,
    focus,
  }
}
