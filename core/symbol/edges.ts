import { flattened, type Outline, type Point } from './path.ts'

/** An edge that a row of pixels may cross, from its upper end to its lower, in pixels. */
export interface Edge {
  readonly top: number
  readonly bottom: number
  readonly x: number
  readonly slope: number
}

/** Curves become lines that are nowhere further off than this, in pixels. */
const TOLERANCE_PX = 0.05

/** The edges of outlines at so many pixels a unit, the uppermost first; those along a row cross none. */
export function edgesOf(outlines: readonly Outline[], scale: number): Edge[] {
  const edges: Edge[] = []
  for (const outline of outlines) {
    const points = flattened(outline, TOLERANCE_PX / scale)
    points.forEach((from, i) => {
      const to = points[(i + 1) % points.length] ?? from
      const [upper, lower]: [Point, Point] = from[1] < to[1] ? [from, to] : [to, from]
      if (upper[1] === lower[1]) return
      edges.push({
        top: upper[1] * scale,
        bottom: lower[1] * scale,
        x: upper[0] * scale,
        slope: (lower[0] - upper[0]) / (lower[1] - upper[1]),
      })
    })
  }
  return edges.sort((a, b) => a.top - b.top)
}

/**
 * Calls `meet` for each row of sampling lines with where edges cross it, from left to right.
 *
 * @param lines how many lines there are, each in the middle of its share of a pixel
 * @param perPixel sampling lines a pixel
 */
export function crossRows(
  edges: readonly Edge[],
  lines: number,
  perPixel: number,
  meet: (line: number, crossings: readonly number[]) => void,
): void {
  let next = 0
  let active: Edge[] = []
  for (let line = 0; line < lines; line++) {
    const y = (line + 0.5) / perPixel
    for (let edge = edges[next]; edge && edge.top <= y; edge = edges[++next]) active.push(edge)
    if (active.length === 0) continue
    active = active.filter(({ bottom }) => bottom > y)
    meet(
      line,
      active.map(({ x, top, slope }) => x + (y - top) * slope).sort((a, b) => a - b),
    )
  }
}
