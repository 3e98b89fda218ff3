import type { SvgNode } from './svgTree.ts'
import { runsOf, widthOfRun, type Weight } from './fonts.ts'

type Document = PDFKit.PDFDocument

/** Tiles of a pattern that are drawn in one area: more would be a grey. */
const TILES_MAX = 3000

const numberOf = (text: string | undefined, otherwise = 0) => {
  const value = Number.parseFloat(text ?? '')
  return Number.isNaN(value) ? otherwise : value
}
const numbersIn = (text: string) =>
  [...text.matchAll(/-?\d*\.?\d+(?:e-?\d+)?/g)].map(([each]) => Number(each))

/** A transform of a drawing (SVG 1.1, section 7.6), as far as ECharts writes it. */
function applyTransform(doc: Document, transform: string): void {
  for (const [, kind = '', values = ''] of transform.matchAll(/(\w+)\(([^)]*)\)/g)) {
    const [a = 0, b, c = 0, d = 1, e = 0, f = 0] = numbersIn(values)
    if (kind === 'matrix') doc.transform(a, b ?? 0, c, d, e, f)
    else if (kind === 'translate') doc.translate(a, b ?? 0)
    else if (kind === 'scale') doc.scale(a, b ?? a)
    else if (kind === 'rotate') doc.rotate(a, { origin: [b ?? 0, c] })
  }
}

/** A colour as PDFKit takes it; null for none. */
function colourOf(text: string | undefined): [number, number, number] | string | null {
  if (text === undefined || text === 'none' || text === 'transparent') return null
  const rgb = /^rgba?\(([^)]*)\)/.exec(text)
  if (!rgb) return text
  const [red = 0, green = 0, blue = 0] = numbersIn(rgb[1] ?? '')
  return [red, green, blue]
}

interface Box {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** The box about the points of a path of straight lines; of curves, about all that their points reach. */
export function boxOf(path: string): Box {
  const [xs, ys]: [number[], number[]] = [[], []]
  let [x, y] = [0, 0]
  for (const [, command = '', values = ''] of path.matchAll(/([a-zA-Z])([^a-zA-Z]*)/g)) {
    const numbers = numbersIn(values)
    const isRelative = command === command.toLowerCase()
    const step = { h: 1, v: 1, a: 7, c: 6, s: 4, q: 4, z: 0 }[command.toLowerCase()] ?? 2
    for (let i = 0; step > 0 && i + step <= numbers.length; i += step) {
      const [last = 0, before = 0] = [numbers[i + step - 1], numbers[i + step - 2]]
      const [fromX, fromY] = isRelative ? [x, y] : [0, 0]
      if (command.toLowerCase() === 'h') x = fromX + last
      else if (command.toLowerCase() === 'v') y = fromY + last
      else [x, y] = [fromX + before, fromY + last]
      xs.push(x)
      ys.push(y)
    }
  }
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) }
}

/** Draws a chart (SVG, as ECharts writes it) as vectors and real text, from the upper left corner of where the document is. */
export function drawSvg(doc: Document, root: SvgNode): void {
  const named = new Map<string, SvgNode>()
  const remember = (node: SvgNode) => {
    if (node.attributes.id !== undefined) named.set(node.attributes.id, node)
    node.children.forEach(remember)
  }
  remember(root)
  const referred = (text: string | undefined) => named.get(/url\(#([^)]+)\)/.exec(text ?? '')?.[1] ?? '')

  function clip(node: SvgNode): void {
    const area = referred(node.attributes['clip-path'])
    for (const path of area?.children ?? []) if (path.attributes.d) doc.path(path.attributes.d).clip()
  }

  function gradientOf(node: SvgNode, box: Box): PDFKit.Mixins.ColorValue | null {
    const at = (name: string, otherwise: number) => numberOf(node.attributes[name], otherwise)
    const isOwnUnits = node.attributes.gradientUnits === 'userSpaceOnUse'
    const [width, height] = [box.right - box.left, box.bottom - box.top]
    const x = (part: number) => (isOwnUnits ? part : box.left + part * width)
    const y = (part: number) => (isOwnUnits ? part : box.top + part * height)
    const gradient = doc.linearGradient(x(at('x1', 0)), y(at('y1', 0)), x(at('x2', 1)), y(at('y2', 0)))
    for (const stop of node.children) {
      const colour = colourOf(stop.attributes['stop-color'])
      // Its types know names of colours alone; it takes what `fillColor` takes.
      if (colour) gradient.stop(numberOf(stop.attributes.offset) / 100, colour as string)
    }
    return gradient
  }

  /** The tiles of a pattern within an area. */
  function tile(pattern: SvgNode, path: string): void {
    const [width, height] = [numberOf(pattern.attributes.width), numberOf(pattern.attributes.height)]
    const box = boxOf(path)
    const [across, down] = [(box.right - box.left) / width, (box.bottom - box.top) / height].map(Math.ceil)
    if (!(width > 0 && height > 0) || (across ?? 0) * (down ?? 0) > TILES_MAX) return
    doc.save()
    doc.path(path).clip()
    const left = Math.floor(box.left / width) * width
    const top = Math.floor(box.top / height) * height
    for (let x = left; x < box.right; x += width)
      for (let y = top; y < box.bottom; y += height) {
        doc.save()
        doc.translate(x, y)
        pattern.children.forEach(draw)
        doc.restore()
      }
    doc.restore()
  }

  function drawPath({ attributes }: SvgNode): void {
    const { d: path = '', fill, stroke } = attributes
    if (path === '') return
    const opacity = numberOf(attributes.opacity, 1)
    const fillOpacity = opacity * numberOf(attributes['fill-opacity'], 1)
    const paint = referred(fill)
    if (paint?.tag === 'pattern') {
      tile(paint, path)
    } else if (fillOpacity > 0 && fill !== 'none') {
      const colour = paint ? gradientOf(paint, boxOf(path)) : colourOf(fill ?? '#000000')
      if (colour !== null) {
        doc.path(path).fillOpacity(fillOpacity)
        doc.fill(colour, attributes['fill-rule'] === 'evenodd' ? 'even-odd' : 'non-zero')
      }
    }
    const line = colourOf(stroke)
    const width = numberOf(attributes['stroke-width'], 1)
    const strokeOpacity = opacity * numberOf(attributes['stroke-opacity'], 1)
    if (line === null || width <= 0 || strokeOpacity <= 0) return
    const dashes = numbersIn(attributes['stroke-dasharray'] ?? '').filter((each) => each > 0)
    doc.path(path).lineWidth(width).strokeOpacity(strokeOpacity)
    if (dashes.length > 0) doc.dash(dashes as never, {})
    else doc.undash()
    doc.stroke(line)
  }

  function drawText({ attributes, text }: SvgNode): void {
    const colour = colourOf(attributes.fill ?? '#000000')
    if (colour === null || text.trim() === '') return
    const size = numberOf(attributes['font-size'], 12)
    const weight: Weight = /bold|[6-9]00/.test(attributes['font-weight'] ?? '') ? 'strong' : 'plain'
    const runs = runsOf(text, weight).map((run) => ({ ...run, width: widthOfRun(run, size) }))
    const whole = runs.reduce((sum, { width }) => sum + width, 0)
    const before = { middle: whole / 2, end: whole }[attributes['text-anchor'] ?? ''] ?? 0
    // From the middle of the letters to the line they stand on.
    const down = { central: 0.35, hanging: 0.75 }[attributes['dominant-baseline'] ?? ''] ?? 0
    let x = numberOf(attributes.x) - before
    doc
      .fillColor(colour)
      .fillOpacity(numberOf(attributes.opacity, 1) * numberOf(attributes['fill-opacity'], 1))
    for (const { file, text: letters, width } of runs) {
      doc.font(file.name).fontSize(size)
      doc.text(letters, x, numberOf(attributes.y) + down * size, { lineBreak: false, baseline: 'alphabetic' })
      x += width
    }
  }

  function draw(node: SvgNode): void {
    const { tag, attributes } = node
    if (tag === 'defs') return
    doc.save()
    clip(node)
    if (attributes.transform !== undefined) applyTransform(doc, attributes.transform)
    if (tag === 'path') drawPath(node)
    else if (tag === 'text') drawText(node)
    else if (tag === 'rect') drawPath({ ...node, attributes: { ...attributes, d: rectPath(attributes) } })
    else node.children.forEach(draw)
    doc.restore()
  }
  draw(root)
}

function rectPath(attributes: SvgNode['attributes']): string {
  const [x, y, width, height] = ['x', 'y', 'width', 'height'].map((name) => numberOf(attributes[name]))
  return `M${String(x)} ${String(y)}h${String(width)}v${String(height)}h${String(-(width ?? 0))}Z`
}
