import { Parser } from 'htmlparser2'

/** An element of a drawing (SVG), as ECharts writes it. */
export interface SvgNode {
  readonly tag: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: SvgNode[]
  text: string
}

/** What is written for screens with a pointer alone. */
const UNWANTED = ['class', 'pointer-events', 'style']

/** Properties of a `style` attribute as attributes of their own: a strict policy lets no inline styles in. */
function styleProperties(style: string): Record<string, string> {
  return Object.fromEntries(
    style.split(';').flatMap((each): [string, string][] => {
      const at = each.indexOf(':')
      return at < 0 ? [] : [[each.slice(0, at).trim(), each.slice(at + 1).trim()]]
    }),
  )
}

function tidied(attributes: Readonly<Record<string, string>>): Record<string, string> {
  const own = Object.entries(attributes).filter(
    ([name]) => !UNWANTED.includes(name) && !name.startsWith('ecmeta'),
  )
  return { ...Object.fromEntries(own), ...styleProperties(attributes.style ?? '') }
}

/** Reads a drawing, without its style sheets and what is only for pointers. */
export function readSvg(svg: string): SvgNode {
  const root: SvgNode = { tag: '', attributes: {}, children: [], text: '' }
  const open = [root]
  const parser = new Parser(
    {
      onopentag(tag, attributes) {
        const node: SvgNode = { tag, attributes: tidied(attributes), children: [], text: '' }
        if (tag !== 'style') open.at(-1)?.children.push(node)
        open.push(node)
      },
      ontext(text) {
        const node = open.at(-1)
        if (node?.tag === 'text') node.text += text
      },
      onclosetag() {
        open.pop()
      },
    },
    { xmlMode: true },
  )
  parser.end(svg)
  const [drawing] = root.children
  if (!drawing) throw new Error('There is no drawing in it')
  return drawing
}
