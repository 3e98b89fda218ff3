import type { Block, RichText, Run } from '@flimbo/core/fields'

/** A node of the editor's document (ProseMirror), as far as texts of pages have them. */
export interface EditorNode {
  readonly type: string
  readonly text?: string
  readonly marks?: readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> }[]
  readonly content?: readonly EditorNode[]
}

const nodesOf = ({ text, bold, italic, link }: Run): EditorNode[] => {
  const marks = [
    ...(bold ? [{ type: 'bold' }] : []),
    ...(italic ? [{ type: 'italic' }] : []),
    ...(link === undefined ? [] : [{ type: 'link', attrs: { href: link } }]),
  ]
  return text
    .split('\n')
    .flatMap((line, i): EditorNode[] => [
      ...(i > 0 ? [{ type: 'hardBreak' }] : []),
      ...(line === '' ? [] : [{ type: 'text', text: line, ...(marks.length > 0 ? { marks } : {}) }]),
    ])
}
const paragraph = (runs: readonly Run[]): EditorNode => ({
  type: 'paragraph',
  content: runs.flatMap(nodesOf),
})

/** A text as the editor's document. */
export function toDocument(blocks: RichText): EditorNode {
  return {
    type: 'doc',
    content: blocks.length === 0 ? [paragraph([])] : blocks.map(blockNode),
  }
}

function blockNode(block: Block): EditorNode {
  if (block.kind === 'paragraph') return paragraph(block.runs)
  return {
    type: block.isNumbered ? 'orderedList' : 'bulletList',
    content: block.items.map((item) => ({ type: 'listItem', content: [paragraph(item)] })),
  }
}

function runOf({ type, text = '', marks = [] }: EditorNode): Run[] {
  if (type === 'hardBreak') return [{ text: '\n' }]
  if (text === '') return []
  const has = (mark: string) => marks.some((each) => each.type === mark)
  const href = marks.find((each) => each.type === 'link')?.attrs?.href
  return [
    {
      text,
      ...(has('bold') ? { bold: true } : {}),
      ...(has('italic') ? { italic: true } : {}),
      ...(typeof href === 'string' ? { link: href } : {}),
    },
  ]
}

const runsIn = ({ content = [] }: EditorNode): Run[] => content.flatMap(runOf)

/** Lines of a list, those of lists within it one after the other: pages have lists of one level. */
function itemsOf({ content = [] }: EditorNode): Run[][] {
  return content.flatMap((item) =>
    (item.content ?? []).flatMap((node) => (node.type === 'paragraph' ? [runsIn(node)] : itemsOf(node))),
  )
}

/** The editor's document as a text. */
export function fromDocument({ content = [] }: EditorNode): RichText {
  return content.flatMap((node): Block[] => {
    if (node.type === 'paragraph') return [{ kind: 'paragraph', runs: runsIn(node) }]
    if (node.type !== 'bulletList' && node.type !== 'orderedList') return []
    return [{ kind: 'list', isNumbered: node.type === 'orderedList', items: itemsOf(node) }]
  })
}
