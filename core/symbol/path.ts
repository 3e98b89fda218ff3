/** A point, in units of its scene from the upper left corner. */
export type Point = readonly [x: number, y: number]

/** A cubic Bézier curve to a point, by way of two control points. */
export type Curve = readonly [x1: number, y1: number, x2: number, y2: number, x: number, y: number]

/** A closed outline: the point it starts at, then lines (points) and curves to the next, and a line back. */
export type Outline = readonly (Point | Curve)[]

/** How far a curve's control points stand off for a quarter of a circle: 4/3 · (√2 − 1), which errs by 0.03 % of the radius. */
const QUARTER = (4 / 3) * (Math.SQRT2 - 1)

export const isCurve = (step: Point | Curve): step is Curve => step.length === 6

/** Where a step ends. */
export const endOf = (step: Point | Curve): Point => (isCurve(step) ? [step[4], step[5]] : step)

export function rectangle(x: number, y: number, width: number, height: number): readonly Point[] {
  return [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ]
}

/** A rectangle whose corners are quarters of circles; with a radius of half its side, a circle. */
export function roundedRectangle(
  x: number,
  y: number,
  width: number,
  height: number,
  radius: number,
): Outline {
  const r = Math.min(radius, width / 2, height / 2)
  const corners = rectangle(x, y, width, height)
  return r <= 0 ? corners : roundedCorners(corners, r)
}

export function circle(x: number, y: number, radius: number): Outline {
  return roundedRectangle(x - radius, y - radius, 2 * radius, 2 * radius, radius)
}

/** A square that stands on a corner, as wide as high. */
export function diamond(x: number, y: number, radius: number): Outline {
  return [
    [x, y - radius],
    [x + radius, y],
    [x, y + radius],
    [x - radius, y],
  ]
}

/**
 * A polygon with its corners rounded off, inner ones as well. A corner takes at most half of each of its sides.
 *
 * @param corners at least three, none upon the next
 */
export function roundedCorners(corners: readonly Point[], radius: number): Outline {
  const outline: (Point | Curve)[] = []
  corners.forEach((corner, i) => {
    const before = corners[(i + corners.length - 1) % corners.length] ?? corner
    const after = corners[(i + 1) % corners.length] ?? corner
    const near = Math.min(radius, distance(before, corner) / 2, distance(corner, after) / 2)
    const from = towards(corner, before, near)
    const to = towards(corner, after, near)
    const bend = near * (1 - QUARTER)
    const last = outline.at(-1)
    // Two rounded corners may meet in the middle of a side: nothing is left of it.
    if (!last || distance(endOf(last), from) > 1e-9) outline.push(from)
    const first = towards(corner, before, bend)
    const second = towards(corner, after, bend)
    outline.push([first[0], first[1], second[0], second[1], to[0], to[1]])
  })
  return outline
}

const distance = ([ax, ay]: Point, [bx, by]: Point) => Math.hypot(bx - ax, by - ay)

function towards(from: Point, to: Point, by: number): Point {
  const whole = distance(from, to)
  const share = whole === 0 ? 0 : by / whole
  return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share]
}

const moveStep = (step: Point | Curve, dx: number, dy: number): Point | Curve =>
  isCurve(step)
    ? [step[0] + dx, step[1] + dy, step[2] + dx, step[3] + dy, step[4] + dx, step[5] + dy]
    : [step[0] + dx, step[1] + dy]

/** An outline somewhere else, and larger or smaller: first scaled about the origin, then moved. */
export function placed(outline: Outline, dx: number, dy: number, scale = 1): Outline {
  const scaled =
    scale === 1
      ? outline
      : outline.map((step) => step.map((value) => value * scale) as unknown as Point | Curve)
  return scaled.map((step) => moveStep(step, dx, dy))
}

/**
 * An outline as a polygon that is nowhere further from it than about `tolerance` units.
 */
export function flattened(outline: Outline, tolerance: number): Point[] {
  const points: Point[] = []
  for (const step of outline) {
    if (!isCurve(step)) {
      points.push(step)
      continue
    }
    const from = points.at(-1) ?? endOf(step)
    const [x1, y1, x2, y2, x, y] = step
    // Wang's bound: a cubic curve in n parts is nowhere further off than 3/4 · bow / n².
    const bow = Math.max(
      Math.hypot(from[0] - 2 * x1 + x2, from[1] - 2 * y1 + y2),
      Math.hypot(x1 - 2 * x2 + x, y1 - 2 * y2 + y),
    )
    const parts = Math.max(1, Math.ceil(Math.sqrt((0.75 * bow) / tolerance)))
    for (let i = 1; i <= parts; i++) points.push(curvePoint(from, step, i / parts))
  }
  return points
}

function curvePoint([x0, y0]: Point, [x1, y1, x2, y2, x, y]: Curve, t: number): Point {
  const u = 1 - t
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
  return [a * x0 + b * x1 + c * x2 + d * x, a * y0 + b * y1 + c * y2 + d * y]
}
