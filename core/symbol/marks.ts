import type { Paint, Tint } from './look.ts'
import { isCurve, placed, type Outline, type Point } from './path.ts'
import type { Area, Ink, Mark, Solid } from './scene.ts'

/** A box, in units of its scene. */
export interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** One colour as an ink. */
export const solidInk = ({ rgb, cmyk }: Tint): Solid => ({
  kind: 'solid',
  colour: rgb,
  ...(cmyk && { cmyk }),
})

/** A paint as the ink of a box: gradients run from edge to edge of it. */
export function inkFor(paint: Paint, { x, y, width, height }: Box): Ink {
  const centre = [x + width / 2, y + height / 2] as const
  switch (paint.kind) {
    case 'solid':
      return solidInk(paint.tint)
    case 'linear': {
      const turn = (paint.angle * Math.PI) / 180
      const [dx, dy] = [Math.cos(turn), Math.sin(turn)]
      // From corner to corner as seen along the direction, as CSS has it (CSS Images, section 3.1.1).
      const half = (Math.abs(dx) * width + Math.abs(dy) * height) / 2
      return {
        kind: 'linear',
        from: [centre[0] - dx * half, centre[1] - dy * half],
        to: [centre[0] + dx * half, centre[1] + dy * half],
        stops: [solidInk(paint.from), solidInk(paint.to)],
      }
    }
    case 'radial':
      return {
        kind: 'radial',
        centre,
        radius: Math.hypot(width, height) / 2,
        stops: [solidInk(paint.from), solidInk(paint.to)],
      }
  }
}

/** Outlines with their ink. */
export const area = (outlines: readonly Outline[], ink: Ink): Area => ({ kind: 'area', outlines, ink })

/** Marks somewhere else, and larger or smaller, their gradients with them: first scaled about the origin, then moved. */
export function placedMarks(marks: readonly Mark[], dx: number, dy: number, scale = 1): Mark[] {
  return marks.map((mark) => {
    if (mark.kind === 'picture') {
      const { x, y, width, height } = mark
      return { ...mark, x: x * scale + dx, y: y * scale + dy, width: width * scale, height: height * scale }
    }
    return {
      ...mark,
      outlines: mark.outlines.map((each) => placed(each, dx, dy, scale)),
      ink: placedInk(mark.ink, dx, dy, scale),
    }
  })
}

function placedInk(ink: Ink, dx: number, dy: number, scale: number): Ink {
  const place = ([x, y]: readonly [number, number]) => [x * scale + dx, y * scale + dy] as const
  switch (ink.kind) {
    case 'solid':
      return ink
    case 'linear':
      return { ...ink, from: place(ink.from), to: place(ink.to) }
    case 'radial':
      return { ...ink, centre: place(ink.centre), radius: ink.radius * scale }
  }
}

/** Marks turned by so many degrees, clockwise, about a point. */
export function turnedMarks(marks: readonly Mark[], degrees: number, [cx, cy]: Point): Mark[] {
  if (degrees === 0) return [...marks]
  const angle = (degrees * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const turn = (x: number, y: number): Point => [
    cx + (x - cx) * cos - (y - cy) * sin,
    cy + (x - cx) * sin + (y - cy) * cos,
  ]
  const step = (each: Outline[number]): Outline[number] => {
    if (!isCurve(each)) return turn(each[0], each[1])
    const [x1, y1, x2, y2, x, y] = each
    return [...turn(x1, y1), ...turn(x2, y2), ...turn(x, y)]
  }
  return marks.map((mark) => {
    if (mark.kind === 'picture') {
      const { x, y, width, height, turnDeg = 0 } = mark
      const [mx, my] = turn(x + width / 2, y + height / 2)
      return { ...mark, x: mx - width / 2, y: my - height / 2, turnDeg: turnDeg + degrees }
    }
    return {
      ...mark,
      outlines: mark.outlines.map((outline) => outline.map(step)),
      ink: turnedInk(mark.ink, turn),
    }
  })
}

function turnedInk(ink: Ink, turn: (x: number, y: number) => Point): Ink {
  switch (ink.kind) {
    case 'solid':
      return ink
    case 'linear':
      return { ...ink, from: turn(...ink.from), to: turn(...ink.to) }
    case 'radial':
      return { ...ink, centre: turn(...ink.centre) }
  }
}
