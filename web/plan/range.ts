/** A cell of the grid: a piece by its place in the list, a column by its place on the screen. */
export interface Cell {
  readonly piece: number
  readonly column: number
}

/** A block of cells, both ends included. */
export interface Range {
  readonly top: number
  readonly bottom: number
  readonly left: number
  readonly right: number
}

/** The block between two cells, both included. */
export function rangeOf(anchor: Cell, active: Cell): Range {
  return {
    top: Math.min(anchor.piece, active.piece),
    bottom: Math.max(anchor.piece, active.piece),
    left: Math.min(anchor.column, active.column),
    right: Math.max(anchor.column, active.column),
  }
}

export const isWithin = ({ top, bottom, left, right }: Range, piece: number, column: number) =>
  piece >= top && piece <= bottom && column >= left && column <= right

export const cellsIn = ({ top, bottom, left, right }: Range) => (bottom - top + 1) * (right - left + 1)

/** Which value of a pasted block goes into a cell of the range it is pasted over: a single value fills the range, as does a block that fits in it a whole number of times. */
export function pasteShape(
  block: { rows: number; columns: number },
  over: Range,
): { rows: number; columns: number } {
  const [height, width] = [over.bottom - over.top + 1, over.right - over.left + 1]
  const repeats = height % block.rows === 0 && width % block.columns === 0
  return repeats ? { rows: height, columns: width } : block
}

/** The range where a piece lies in it; null where it does not, or where the range is one cell, which is marked as active. */
export function rangeOn(range: Range, piece: number): Range | null {
  const isOneCell = range.top === range.bottom && range.left === range.right
  return isOneCell || piece < range.top || piece > range.bottom ? null : range
}
