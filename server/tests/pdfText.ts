import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'

/** A PDF as another library reads it: the texts of its pages, and what its tags say. */
export async function readPdf(bytes: Uint8Array) {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise
  const pages: string[] = []
  const tags: string[] = []
  const alternatives: string[] = []
  interface Node {
    readonly role?: string
    readonly alt?: string
    readonly children?: readonly Node[]
  }
  const walk = ({ role, alt, children = [] }: Node) => {
    if (role !== undefined) tags.push(role)
    if (alt !== undefined) alternatives.push(alt)
    children.forEach(walk)
  }
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number)
    const { items } = await page.getTextContent()
    pages.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' '),
    )
    walk((await page.getStructTree()) as Node)
  }
  const { info } = await document.getMetadata()
  return { pages, text: pages.join(' '), tags, alternatives, info: info as Record<string, unknown> }
}
