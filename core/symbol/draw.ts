import { QUIET_ZONE, type QrSymbol } from './encode.ts'

/**
 * The dark modules as the data of one SVG path, in modules from the corner of the quiet zone. Each
 * outline of touching modules is one closed sub-path with only its corners named, so that printers see
 * areas and not thousands of hairline-parted squares. Fill it with the even-odd rule.
 */
export function outlinePath({ modules, side }: Pick<QrSymbol, 'modules' | 'side'>): string {
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
  let path = ''
  for (const [start] of edges) {
    while ((edges.get(start)?.length ?? 0) > 0) path += walk(start, edges)
  }
  return path
}

/** Follows the edges from a corner back to it, taking the right turn where two outlines touch. */
function walk(start: string, edges: Map<string, [number, number][]>): string {
  const [startX, startY] = start.split(',').map(Number) as [number, number]
  let [x, y] = [startX, startY]
  let [lastX, lastY] = [0, 0]
  let path = `M${String(x + QUIET_ZONE)} ${String(y + QUIET_ZONE)}`
  let run = 0
  const flush = () => {
    if (run === 0) return
    path += lastX === 0 ? `v${String(lastY * run)}` : `h${String(lastX * run)}`
    run = 0
  }
  do {
    const here = edges.get(`${String(x)},${String(y)}`) ?? []
    const rightTurn = here.findIndex(([dx, dy]) => dx === -lastY && dy === lastX)
    const [edge] = here.splice(Math.max(0, rightTurn), 1)
    if (!edge) break
    const [dx, dy] = edge
    if (dx !== lastX || dy !== lastY) flush()
    ;[lastX, lastY] = edge
    run++
    x += dx
    y += dy
  } while (x !== startX || y !== startY)
  // The last run closes the outline; "z" draws it.
  return `${path}z`
}

/** Modules a side with the quiet zone on both sides. */
export function fullSide(side: number): number {
  return side + 2 * QUIET_ZONE
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
}

/**
 * A symbol as an SVG document (SVG 1.1): white ground with the 4-module quiet zone, one black path.
 *
 * @param mm printed side in millimetres, quiet zone included
 * @param title the document's title, read out by screen readers
 */
export function symbolSvg(symbol: QrSymbol, mm: number, title: string): string {
  const full = String(fullSide(symbol.side))
  const size = String(mm)
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${full} ${full}">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="${full}" height="${full}" fill="#fff"/>`,
    `<path fill="#000" fill-rule="evenodd" d="${outlinePath(symbol)}"/>`,
    '</svg>',
    '',
  ].join('\n')
}
