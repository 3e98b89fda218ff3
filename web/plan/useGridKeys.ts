import type { KeyboardEvent } from 'react'
import type { Cell } from './range.ts'

export interface GridMoves {
  readonly active: Cell
  readonly pieces: number
  readonly columns: number
  /** How many lines one screen shows. */
  readonly page: number
  readonly step: (piece: number, by: number) => number
  readonly go: (to: Cell, extend: boolean) => void
  readonly edit: () => void
  readonly open: () => void
  readonly toggle: () => void
  readonly chooseAll: () => void
  readonly clear: () => void
  readonly fillDown: () => void
  readonly undo: () => void
  readonly redo: () => void
  readonly widen: (by: number) => void
}

const WIDER_PX = 16

/** The keys of the grid; what is not one of them is left to the page. */
export function gridKey(event: KeyboardEvent, moves: GridMoves): void {
  const {
    active: { piece, column },
    pieces,
    columns,
    page,
    step,
    go,
  } = moves
  const control = event.ctrlKey || event.metaKey
  const extend = event.shiftKey
  const to = (nextPiece: number, nextColumn: number) => {
    go(
      {
        piece: Math.min(pieces - 1, Math.max(0, nextPiece)),
        column: Math.min(columns - 1, Math.max(0, nextColumn)),
      },
      extend,
    )
  }
  const act = (): boolean => {
    if (event.altKey) {
      if (!event.shiftKey || (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft')) return false
      moves.widen(event.key === 'ArrowRight' ? WIDER_PX : -WIDER_PX)
      return true
    }
    switch (event.key) {
      case 'ArrowDown':
        if (control) to(pieces - 1, column)
        else to(step(piece, 1), column)
        return true
      case 'ArrowUp':
        if (control) to(0, column)
        else to(step(piece, -1), column)
        return true
      case 'ArrowRight':
        to(piece, control ? columns - 1 : column + 1)
        return true
      case 'ArrowLeft':
        to(piece, control ? 0 : column - 1)
        return true
      case 'Home':
        to(control ? 0 : piece, 0)
        return true
      case 'End':
        to(control ? pieces - 1 : piece, columns - 1)
        return true
      case 'PageDown':
        to(step(piece, page), column)
        return true
      case 'PageUp':
        to(step(piece, -page), column)
        return true
      case 'Enter':
        if (control) moves.open()
        else moves.edit()
        return true
      case 'F2':
        moves.edit()
        return true
      case ' ':
        moves.toggle()
        return true
      case 'Delete':
      case 'Backspace':
        moves.clear()
        return true
      case 'Tab': {
        // At the ends of a row Tab leaves the grid, so that nobody is caught in it.
        const next = column + (extend ? -1 : 1)
        if (next < 0 || next >= columns) return false
        go({ piece, column: next }, false)
        return true
      }
      default:
    }
    if (!control) return false
    switch (event.key.toLowerCase()) {
      case 'a':
        moves.chooseAll()
        return true
      case 'd':
        moves.fillDown()
        return true
      case 'z':
        if (extend) moves.redo()
        else moves.undo()
        return true
      case 'y':
        moves.redo()
        return true
      default:
        return false
    }
  }
  if (act()) event.preventDefault()
}
