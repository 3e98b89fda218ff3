import sanitizeHtml from 'sanitize-html'

/** Elements of SVG that draw, and those that they refer to. Nothing that moves, runs, links, or holds another language. */
const ELEMENTS = [
  'svg',
  'g',
  'defs',
  'symbol',
  'use',
  'title',
  'desc',
  'style',
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'text',
  'tspan',
  'linearGradient',
  'radialGradient',
  'stop',
  'clipPath',
  'mask',
  'pattern',
]
const ATTRIBUTES =
  'id class style transform viewBox width height x y x1 y1 x2 y2 cx cy r rx ry fx fy d points dx dy rotate offset version xmlns xmlns:xlink preserveAspectRatio ' +
  'fill fill-opacity fill-rule stroke stroke-width stroke-linecap stroke-linejoin stroke-miterlimit stroke-dasharray stroke-dashoffset stroke-opacity opacity ' +
  'color display visibility clip-path clip-rule mask stop-color stop-opacity gradientUnits gradientTransform spreadMethod clipPathUnits maskUnits maskContentUnits ' +
  'patternUnits patternContentUnits patternTransform href xlink:href font-family font-size font-weight font-style text-anchor letter-spacing paint-order vector-effect'

/** Elements that draw others once more: a few of them in one another would draw billions. */
const USES_MAX = 500

/** Values and styles may refer to something in the same drawing, and to nothing else. */
const refersOutside = (text: string) =>
  /@import|expression\s*\(|javascript:|data:|\\/i.test(text) || /url\s*\(\s*["']?\s*[^"'#\s]/i.test(text)

const STYLE = /<style[^>]*>([\s\S]*?)<\/style>/g

/** A drawing may not be made harmless. The message says what to do. */
export class NotADrawing extends Error {
  override readonly name = 'NotADrawing'
}

/** So often a drawing is cleaned at most; what is still another one then was made to deceive. */
const PASSES_MAX = 4

/**
 * An SVG document with what draws and nothing else: no scripts, no links, nothing from elsewhere.
 *
 * @throws NotADrawing where nothing of it is left, or it repeats itself beyond measure
 */
export function harmlessSvg(text: string): string {
  let drawing = text.replace(/^\ufeff/, '')
  // What was hidden in something else may come to light by a cleaning: it is harmless once that changes nothing.
  for (let pass = 0; pass < PASSES_MAX; pass++) {
    const clean = cleaned(drawing)
    if (clean === drawing) return named(clean)
    drawing = clean
  }
  throw notPlain()
}

const notPlain = () =>
  new NotADrawing('There is no drawing in this SVG file. Save it as plain SVG and upload it again.')

function named(drawing: string): string {
  if (!/^<svg[\s>]/.test(drawing)) throw notPlain()
  return drawing.includes('xmlns="http://www.w3.org/2000/svg"')
    ? drawing
    : drawing.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"')
}

function cleaned(drawing: string): string {
  let uses = 0
  const clean = sanitizeHtml(drawing, {
    allowedTags: ELEMENTS,
    // What a style element holds is looked at below.
    allowVulnerableTags: true,
    allowedAttributes: { '*': ATTRIBUTES.split(' ') },
    allowedSchemes: [],
    allowProtocolRelative: false,
    nonTextTags: ['script', 'foreignObject', 'image', 'iframe', 'audio', 'video', 'a', 'animate', 'set'],
    parseStyleAttributes: false,
    parser: { xmlMode: true, lowerCaseTags: false, lowerCaseAttributeNames: false },
    transformTags: {
      '*': (tagName, attributes) => {
        if (tagName === 'use' && ++uses > USES_MAX)
          throw new NotADrawing('The drawing repeats its parts too often. Save it with its parts resolved.')
        const kept = Object.entries(attributes).filter(([name, value]) =>
          /^(xlink:)?href$/.test(name) ? value.startsWith('#') : !refersOutside(value),
        )
        return { tagName, attribs: Object.fromEntries(kept) }
      },
    },
  })
  return clean
    .replace(STYLE, (whole, style: string) => (refersOutside(style) || /[<&]/.test(style) ? '' : whole))
    .trim()
}
