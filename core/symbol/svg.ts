import { isCurve, type Outline } from './path.ts'
import type { Area, Ink, Picture, Scene, Solid } from './scene.ts'

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
}

/** Digits after the point: a ten-thousandth of a module is nothing that a press could print. */
const DIGITS = 4
const rounded = (value: number) => Number(value.toFixed(DIGITS))
const written = (value: number) => String(rounded(value))

/** Outlines as the data of an SVG path; steps along an axis are the shorter for it. */
export function pathData(outlines: Area['outlines']): string {
  return outlines.map(outlineData).join('')
}

function outlineData([start, ...rest]: Outline): string {
  if (!start || isCurve(start)) return ''
  // Where the pen really is: what was rounded away would add up otherwise.
  let [x, y] = [rounded(start[0]), rounded(start[1])]
  let data = `M${String(x)} ${String(y)}`
  for (const step of rest) {
    const [nextX, nextY] = (isCurve(step) ? [step[4], step[5]] : step).map(rounded) as [number, number]
    if (isCurve(step)) data += `C${step.map(written).join(' ')}`
    else if (nextY === y) data += `h${written(nextX - x)}`
    else if (nextX === x) data += `v${written(nextY - y)}`
    else data += `L${String(nextX)} ${String(nextY)}`
    ;[x, y] = [nextX, nextY]
  }
  return `${data}z`
}

/** A rectangle from the upper left corner, where an area is one: SVG has a shorter word for it. */
function asRectangle({ outlines: [outline, ...others] }: Area): { width: number; height: number } | null {
  const [a, b, c, d, ...more] = outline ?? []
  if (others.length > 0 || more.length > 0 || !a || !b || !c || !d) return null
  if (isCurve(a) || isCurve(b) || isCurve(c) || isCurve(d)) return null
  const [width, height] = c
  const isOne = a[0] === 0 && a[1] === 0 && b[0] === width && b[1] === 0 && d[0] === 0 && d[1] === height
  return isOne ? { width, height } : null
}

const stopMarkup = ({ colour }: Solid, offset: number) =>
  `<stop offset="${String(offset)}" stop-color="${colour}"/>`

/** The element that defines a gradient; null for what needs none. Its name is made of what it is, so that equal ones may share it. */
function gradient(ink: Ink): { name: string; markup: string } | null {
  if (ink.kind === 'solid') return null
  const places: Readonly<Record<string, number>> =
    ink.kind === 'linear'
      ? { x1: ink.from[0], y1: ink.from[1], x2: ink.to[0], y2: ink.to[1] }
      : { cx: ink.centre[0], cy: ink.centre[1], r: ink.radius }
  const [from, to] = ink.stops
  const numbers = Object.values(places).map(written)
  const name = `${ink.kind}_${[...numbers, from.colour, to.colour].join('_').replace(/[^\w-]/g, '')}`
  const attributes = Object.entries(places)
    .map(([key, value]) => `${key}="${written(value)}"`)
    .join(' ')
  const tag = `${ink.kind}Gradient`
  const stops = stopMarkup(from, 0) + stopMarkup(to, 1)
  return {
    name,
    markup: `<${tag} id="${name}" gradientUnits="userSpaceOnUse" ${attributes}>${stops}</${tag}>`,
  }
}

function areaMarkup(area: Area): string {
  const { ink } = area
  const fill = ink.kind === 'solid' ? ink.colour : `url(#${gradient(ink)?.name ?? ''})`
  const rectangle = asRectangle(area)
  return rectangle
    ? `<rect width="${written(rectangle.width)}" height="${written(rectangle.height)}" fill="${fill}"/>`
    : `<path fill="${fill}" fill-rule="evenodd" d="${pathData(area.outlines)}"/>`
}

function pictureMarkup(
  { file, x, y, width, height, turnDeg = 0 }: Picture,
  hrefOf: (file: string) => string | null,
): string[] {
  const href = hrefOf(file)
  if (href === null) return []
  const box = Object.entries({ x, y, width, height })
    .map(([key, value]) => `${key}="${written(value)}"`)
    .join(' ')
  const middle = `${written(x + width / 2)} ${written(y + height / 2)}`
  const turn = turnDeg === 0 ? '' : ` transform="rotate(${written(turnDeg)} ${middle})"`
  return [`<image href="${escaped(href).replace(/"/g, '&quot;')}" ${box}${turn} preserveAspectRatio="none"/>`]
}

/**
 * A scene as an SVG document (SVG 1.1, pictures as SVG 2 names them), as large as it is printed.
 *
 * @param hrefOf where the document finds an uploaded picture, such as a `data:` address; null leaves it out
 */
export function sceneSvg(
  { title, unitMm, width, height, marks }: Scene,
  hrefOf: (file: string) => string | null = () => null,
): string {
  const mm = (units: number) => String(Number((units * unitMm).toFixed(6)))
  const gradients = new Map(
    marks.flatMap((mark) => {
      const found = mark.kind === 'area' ? gradient(mark.ink) : null
      return found ? [[found.name, found.markup] as const] : []
    }),
  )
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${written(width)} ${written(height)}">`,
    `<title>${escaped(title)}</title>`,
    ...(gradients.size > 0 ? [`<defs>${[...gradients.values()].join('')}</defs>`] : []),
    ...marks.flatMap((mark) => (mark.kind === 'area' ? [areaMarkup(mark)] : pictureMarkup(mark, hrefOf))),
    '</svg>',
    '',
  ].join('\n')
}
