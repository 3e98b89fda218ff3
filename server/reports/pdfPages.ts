import { fontsOf } from './fonts.ts'
import { setLines, type Line, type Span } from './setLines.ts'

export type Document = PDFKit.PDFDocument
export type Element = PDFKit.PDFStructureElement

/** A4 in points (ISO 216), and what is left free about the text. */
const [PAGE_WIDTH, PAGE_HEIGHT] = [595.28, 841.89]
export const MARGIN = 51
/** How wide text is, and how far down it goes. */
export const WIDTH = PAGE_WIDTH - 2 * MARGIN
const BOTTOM = PAGE_HEIGHT - MARGIN - 14
/** How high a page's text is. */
export const HEIGHT = BOTTOM - MARGIN
/** Baselines are so far apart, by the size of the letters. */
export const LEADING = 1.35

export const INK = '#1F2A30'
export const QUIET = '#5B676D'
export const HAIRLINE = '#DDD8CC'
export const SIGNAL = '#D9541E'

export interface Style {
  readonly size: number
  readonly colour: string
}
export const BODY: Style = { size: 10, colour: INK }
export const SMALL: Style = { size: 8.5, colour: QUIET }

export const plain = (text: string): Span[] => [{ text, weight: 'plain' }]
export const strong = (text: string): Span[] => [{ text, weight: 'strong' }]

/**
 * The pages of a document, filled from the top down. Whatever is drawn belongs to an element of its structure, or is said
 * to be no content (ISO 14289-1).
 *
 * @param accent the colour of links
 */
export function pdfPages(doc: Document, accent: string) {
  for (const weight of ['plain', 'strong'] as const)
    for (const { name, bytes } of fontsOf(weight)) doc.registerFont(name, bytes)
  const root = doc.struct('Document')
  doc.addStructure(root)
  doc.addPage()
  let y = MARGIN

  /** Begins a new page where what comes would not be on this one as a whole. @returns whether it did */
  function makeRoom(height: number): boolean {
    if (y + height <= BOTTOM || y === MARGIN) return false
    doc.addPage()
    y = MARGIN
    return true
  }

  function drawLine({ runs }: Line, x: number, top: number, { size, colour }: Style): void {
    for (const { file, text, x: along, span } of runs) {
      const { link, isSlanted = false } = span
      doc
        .font(file.name)
        .fontSize(size)
        .fillColor(link === undefined ? colour : accent)
      doc.text(text, x + along, top, {
        lineBreak: false,
        oblique: isSlanted,
        underline: link !== undefined,
        ...(link === undefined || text.trim() === '' ? {} : { link }),
      })
    }
  }

  /** Lines that belong to an element, from where the pages are filled to. */
  function addLines(element: Element, lines: readonly Line[], style: Style, indent = 0): void {
    for (const line of lines) {
      makeRoom(style.size * LEADING)
      element.add(
        doc.struct('Span', {}, () => {
          drawLine(line, MARGIN + indent, y, style)
        }),
      )
      y += style.size * LEADING
    }
  }

  /** What nobody needs to be read. */
  function artifact(draw: () => void, type: 'Layout' | 'Pagination' = 'Layout'): void {
    doc.markContent('Artifact', { type })
    draw()
    doc.endMarkedContent()
  }

  return {
    root,
    makeRoom,
    drawLine,
    artifact,
    /** How far down the page that is open is filled. */
    top: () => y,
    isAtTop: () => y === MARGIN,
    skip(points: number): void {
      y += points
    },
    /** Goes at least so far down the page. */
    skipTo(points: number): void {
      y = Math.max(y, points)
    },
    /** A line across the page. */
    rule(colour: string, width: number): void {
      artifact(() => {
        doc
          .moveTo(MARGIN, y)
          .lineTo(PAGE_WIDTH - MARGIN, y)
          .lineWidth(width)
          .strokeOpacity(1)
          .stroke(colour)
      })
    },
    /**
     * Text that goes on over as many pages as it needs.
     *
     * @param keep what stands below it is so high, and is not left on another page
     */
    say(
      tag: string,
      spans: readonly Span[],
      style: Style,
      { indent = 0, keep = 0, width = WIDTH }: { indent?: number; keep?: number; width?: number } = {},
    ): void {
      makeRoom(style.size * LEADING + keep)
      const element = doc.struct(tag)
      root.add(element)
      addLines(element, setLines(spans, style.size, width - indent), style, indent)
      element.end()
    },
    /** Ends the structure, and numbers the pages. */
    end(title: string): void {
      root.end()
      const { count } = doc.bufferedPageRange()
      const foot = PAGE_HEIGHT - MARGIN + 4
      for (let i = 0; i < count; i++) {
        doc.switchToPage(i)
        artifact(() => {
          const [line] = setLines(plain(`Page ${String(i + 1)} of ${String(count)}`), SMALL.size, WIDTH)
          if (line) drawLine(line, PAGE_WIDTH - MARGIN - line.width, foot, SMALL)
          const [name] = setLines(plain(title), SMALL.size, WIDTH - 120)
          if (name) drawLine(name, MARGIN, foot, SMALL)
        }, 'Pagination')
      }
    },
  }
}
export type PdfPages = ReturnType<typeof pdfPages>
