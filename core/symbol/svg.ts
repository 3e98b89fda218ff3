import type { Area, Point, Scene } from './scene.ts'

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
}

/** Outlines as the data of an SVG path; steps along an axis are the shorter for it. */
export function pathData(outlines: Area['outlines']): string {
  return outlines.map(outlineData).join('')
}

function outlineData([start, ...rest]: readonly Point[]): string {
  if (!start) return ''
  let [x, y] = start
  let data = `M${String(x)} ${String(y)}`
  for (const [nextX, nextY] of rest) {
    if (nextY === y) data += `h${String(nextX - x)}`
    else if (nextX === x) data += `v${String(nextY - y)}`
    else data += `L${String(nextX)} ${String(nextY)}`
    ;[x, y] = [nextX, nextY]
  }
  return `${data}z`
}

/** A rectangle from the upper left corner, where an area is one: SVG has a shorter word for it. */
function asRectangle({ outlines: [outline, ...others] }: Area): { width: number; height: number } | null {
  const [a, b, c, d, ...more] = outline ?? []
  if (others.length > 0 || more.length > 0 || !a || !b || !c || !d) return null
  const [width, height] = c
  const isOne = a[0] === 0 && a[1] === 0 && b[0] === width && b[1] === 0 && d[0] === 0 && d[1] === height
  return isOne ? { width, height } : null
}

function markup(area: Area): string {
  const { colour } = area.ink
  const rectangle = asRectangle(area)
  return rectangle
    ? `<rect width="${String(rectangle.width)}" height="${String(rectangle.height)}" fill="${colour}"/>`
    : `<path fill="${colour}" fill-rule="evenodd" d="${pathData(area.outlines)}"/>`
}

/** A scene as an SVG document (SVG 1.1), as large as it is printed. */
export function sceneSvg({ title, unitMm, width, height, marks }: Scene): string {
  const mm = (units: number) => String(Number((units * unitMm).toFixed(6)))
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(width)}mm" height="${mm(height)}mm" viewBox="0 0 ${String(width)} ${String(height)}">`,
    `<title>${escaped(title)}</title>`,
    ...marks.map(markup),
    '</svg>',
    '',
  ].join('\n')
}
