import { QUIET_ZONE, type QrSymbol } from './encode.ts'
import type { Point } from './path.ts'

/** Modules a side with the quiet zone on both sides. */
export function fullSide(side: number): number {
  return side + 2 * QUIET_ZONE
}

/**
 * The dark modules as outlines, in modules from the symbol's corner. Each outline of touching modules is one closed
 * line with only its corners named, so that printers see areas and not thousands of hairline-parted squares. Fill
 * them together, by the even-odd rule.
 */
export function outlinesOf({ modules, side }: Pick<QrSymbol, 'modules' | 'side'>): Point[][] {
  const dark = (x: number, y: number): boolean => modules[y]?.[x] ?? false
  // A directed edge runs with the dark module on its right; keyed by its start, one edge a direction.
  const edges = new Map<string, [dx: number, dy: number][]>()
  const add = (x: number, y: number, dx: number, dy: number) => {
    const key = `${String(x)},${String(y)}`
    const there = edges.get(key)
    if (there) there.push([dx, dy])
    else edges.set(key, [[dx, dy]])
  }
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      if (!dark(x, y)) continue
      if (!dark(x, y - 1)) add(x, y, 1, 0)
      if (!dark(x + 1, y)) add(x + 1, y, 0, 1)
      if (!dark(x, y + 1)) add(x + 1, y + 1, -1, 0)
      if (!dark(x - 1, y)) add(x, y + 1, 0, -1)
    }
  }
  const outlines: Point[][] = []
  for (const [start] of edges) while ((edges.get(start)?.length ?? 0) > 0) outlines.push(walk(start, edges))
  return outlines
}

/** Follows the edges from a corner back to it, taking the right turn where two outlines touch. */
function walk(start: string, edges: Map<string, [number, number][]>): Point[] {
  const [startX, startY] = start.split(',').map(Number) as [number, number]
  const corners: Point[] = [[startX, startY]]
  let [x, y] = [startX, startY]
  let [lastX, lastY] = [0, 0]
  do {
    const here = edges.get(`${String(x)},${String(y)}`) ?? []
    const rightTurn = here.findIndex(([dx, dy]) => dx === -lastY && dy === lastX)
    const [edge] = here.splice(Math.max(0, rightTurn), 1)
    if (!edge) break
    const [dx, dy] = edge
    if ((dx !== lastX || dy !== lastY) && (x !== startX || y !== startY)) corners.push([x, y])
    ;[lastX, lastY] = edge
    x += dx
    y += dy
  } while (x !== startX || y !== startY)
  return corners
}
