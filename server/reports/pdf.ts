import PDFDocument from 'pdfkit'
import { REPORT_CHART_PX, reportDocument, type MadeReport, type ReportPart } from '@flimbo/core/reports'
import type { RichText, Run } from '@flimbo/core/fields'
import { chartTree } from './chartSvg.ts'
import { fontsOf } from './fonts.ts'
import type { Logo } from './logo.ts'
import { drawSvg } from './pdfChart.ts'
import { setLines, type Line, type Span } from './setLines.ts'

type Document = PDFKit.PDFDocument

/** A4 in points (ISO 216), and what is left free about the text. */
const [PAGE_WIDTH, PAGE_HEIGHT] = [595.28, 841.89]
const MARGIN = 51
const WIDTH = PAGE_WIDTH - 2 * MARGIN
const BOTTOM = PAGE_HEIGHT - MARGIN - 14
const INK = '#1F2A30'
const QUIET = '#5B676D'
const HAIRLINE = '#DDD8CC'
const SIGNAL = '#D9541E'
/** Baselines are so far apart, by the size of the letters. */
const LEADING = 1.35
const LOGO_HEIGHT = 48

interface Style {
  readonly size: number
  readonly colour: string
}
const BODY: Style = { size: 10, colour: INK }
const SMALL: Style = { size: 8.5, colour: QUIET }

const FIGURES_HEIGHT = 46
/** Less than this is not left under a heading. */
const LEAST_SHOWN = 60

/** How a chart stands on a page: one that is higher than a page, with its heading, is made smaller. */
function chartSize({ height }: { readonly height: number }) {
  const scale = Math.min(WIDTH / REPORT_CHART_PX, (BOTTOM - MARGIN - 120) / height)
  return { scale, height: height * scale }
}

/** Where the next thing stands on the page that is open. */
interface Cursor {
  y: number
}

/** Draws a report as a PDF: vector charts, real text, tagged for those who have it read to them (ISO 14289-1), pages numbered. */
export async function reportPdf(made: MadeReport, logo: Logo | null): Promise<Uint8Array> {
  const report = reportDocument(made)
  const { accent } = made.look
  const doc: Document = new PDFDocument({
    size: 'A4',
    margin: 0,
    autoFirstPage: false,
    bufferPages: true,
    compress: true,
    pdfVersion: '1.7',
    tagged: true,
    subset: 'PDF/UA',
    displayTitle: true,
    lang: 'en-GB',
    // Its own fonts lie on a disk that may not be there.
    font: null as unknown as string,
    info: {
      Title: report.title,
      Author: made.owner,
      Creator: 'Flimbo',
      Producer: 'Flimbo',
      CreationDate: new Date(made.madeAt),
      ModDate: new Date(made.madeAt),
    },
  } as unknown as PDFKit.PDFDocumentOptions)
  for (const weight of ['plain', 'strong'] as const)
    for (const { name, bytes } of fontsOf(weight)) doc.registerFont(name, bytes)
  const parts: Buffer[] = []
  doc.on('data', (part: Buffer) => parts.push(part))
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve)
    doc.on('error', reject)
  })
  const root = doc.struct('Document')
  doc.addStructure(root)
  const at: Cursor = { y: MARGIN }
  doc.addPage()

  /** Begins a new page where what comes would not be on this one as a whole. */
  function makeRoom(height: number): boolean {
    if (at.y + height <= BOTTOM || at.y === MARGIN) return false
    doc.addPage()
    at.y = MARGIN
    return true
  }

  function drawLine({ runs }: Line, x: number, y: number, { size, colour }: Style): void {
    for (const { file, text, x: along, width, span } of runs) {
      doc
        .font(file.name)
        .fontSize(size)
        .fillColor(span.link === undefined ? colour : accent)
      doc.text(text, x + along, y, {
        lineBreak: false,
        oblique: span.isSlanted === true,
        underline: span.link !== undefined,
        ...(span.link === undefined || text.trim() === '' ? {} : { link: span.link }),
      })
      void width
    }
  }

  /** Text that goes on over as many pages as it needs. */
  function say(tag: string, spans: readonly Span[], style: Style, { indent = 0, keep = 0 } = {}): void {
    const lines = setLines(spans, style.size, WIDTH - indent)
    const step = style.size * LEADING
    makeRoom(step + keep)
    const element = doc.struct(tag)
    root.add(element)
    for (const line of lines) {
      makeRoom(step)
      element.add(
        doc.struct('Span', {}, () => {
          drawLine(line, MARGIN + indent, at.y, style)
        }),
      )
      at.y += step
    }
    element.end()
  }
  const plain = (text: string): Span[] => [{ text, weight: 'plain' }]
  const strong = (text: string): Span[] => [{ text, weight: 'strong' }]
  /** What nobody needs to be read. */
  const artifact = (draw: () => void) => {
    doc.markContent('Artifact', { type: 'Layout' })
    draw()
    doc.endMarkedContent()
  }
  const rule = (y: number, colour: string, width: number) => {
    artifact(() => {
      doc
        .moveTo(MARGIN, y)
        .lineTo(PAGE_WIDTH - MARGIN, y)
        .lineWidth(width)
        .strokeOpacity(1)
        .stroke(colour)
    })
  }

  function head(): void {
    if (logo) {
      const width = Math.min(140, (LOGO_HEIGHT * logo.width) / logo.height)
      artifact(() => {
        doc.image(logo.bytes as never, PAGE_WIDTH - MARGIN - width, MARGIN, { fit: [width, LOGO_HEIGHT] })
      })
    }
    const width = WIDTH - (logo ? 160 : 0)
    const style = { size: 20, colour: accent }
    const element = doc.struct('H1')
    root.add(element)
    for (const line of setLines(strong(report.title), style.size, width)) {
      element.add(
        doc.struct('Span', {}, () => {
          drawLine(line, MARGIN, at.y, style)
        }),
      )
      at.y += style.size * 1.25
    }
    element.end()
    if (report.subtitle !== '') say('P', plain(report.subtitle), SMALL)
    if (logo) at.y = Math.max(at.y, MARGIN + LOGO_HEIGHT)
    at.y += 6
    rule(at.y, accent, 2)
    at.y += 14
  }

  const spanOf = ({ text, bold, italic, link }: Run): Span => ({
    text,
    weight: bold ? 'strong' : 'plain',
    isSlanted: italic === true,
    link,
  })
  function words(blocks: RichText): void {
    for (const block of blocks) {
      at.y += 4
      if (block.kind === 'paragraph') say('P', block.runs.map(spanOf), BODY)
      else
        block.items.forEach((item, i) => {
          const mark = block.isNumbered ? `${String(i + 1)}. ` : '• '
          say('P', [...plain(mark), ...item.map(spanOf)], BODY, { indent: 12 })
        })
      at.y += 4
    }
  }

  function figures(all: Extract<ReportPart, { kind: 'figures' }>['figures']): void {
    const height = FIGURES_HEIGHT
    makeRoom(height)
    const { y } = at
    all.forEach(({ label, value, beside }, i) => {
      const x = MARGIN + (i * WIDTH) / 3
      const element = doc.struct('P')
      root.add(element)
      const piece = (text: string, style: Style, down: number, weight: Span['weight'] = 'plain') => {
        const [line] = setLines([{ text, weight }], style.size, WIDTH / 3 - 8)
        if (line)
          element.add(
            doc.struct('Span', {}, () => {
              drawLine(line, x, y + down, style)
            }),
          )
      }
      piece(label, SMALL, 0)
      piece(value, { size: 16, colour: INK }, 11, 'strong')
      if (beside.trim() !== '') piece(beside, SMALL, 31)
      element.end()
    })
    at.y += height + 4
  }

  function chart(part: Extract<ReportPart, { kind: 'chart' }>): void {
    const { scale, height } = chartSize(part)
    makeRoom(height)
    const tree = chartTree(part)
    root.add(
      doc.struct(
        'Figure',
        { alt: part.said, bbox: [MARGIN, at.y, MARGIN + WIDTH, at.y + height] } as never,
        () => {
          doc.save()
          doc.translate(MARGIN, at.y).scale(scale)
          drawSvg(doc, tree)
          doc.restore()
          doc.fillOpacity(1).strokeOpacity(1).undash()
        },
      ),
    )
    at.y += height + 8
  }

  function table({
    caption,
    headings,
    figuresFrom,
    rows,
    more,
  }: Extract<ReportPart, { kind: 'table' }>): void {
    const style = { size: 8.5, colour: INK }
    const widths = columnWidths(headings, rows, figuresFrom, style.size)
    const linesOf = (cells: readonly string[], weight: Span['weight']) =>
      cells.map((text, i) => setLines([{ text, weight }], style.size, (widths[i] ?? 40) - 8))
    const heightOf = (cells: readonly (readonly Line[])[]) =>
      Math.max(1, ...cells.map(({ length }) => length)) * style.size * LEADING + 5
    const element = doc.struct('Table', { title: caption })
    const drawCell = (lines: readonly Line[], i: number, y: number, colour: string) => {
      const left = MARGIN + widths.slice(0, i).reduce((sum, each) => sum + each, 0)
      lines.forEach((line, down) => {
        const x = i >= figuresFrom ? left + (widths[i] ?? 0) - 8 - line.width : left
        drawLine(line, x, y + down * style.size * LEADING, { ...style, colour })
      })
    }
    const heads = linesOf(headings, 'strong')
    const headHeight = heightOf(heads)
    const first = rows[0] ? heightOf(linesOf(rows[0], 'plain')) : 0
    makeRoom(headHeight + first)
    root.add(element)
    const row = (cells: readonly (readonly Line[])[], tagOf: (i: number) => string, colour: string) => {
      const line = doc.struct('TR')
      element.add(line)
      cells.forEach((lines, i) => {
        const scope = { TH: tagOf(i) === 'TH' ? { scope: i === 0 ? 'Row' : 'Column' } : {} }.TH
        line.add(
          doc.struct(tagOf(i), scope as never, () => {
            drawCell(lines, i, at.y, colour)
          }),
        )
      })
      line.end()
      at.y += heightOf(cells) - 2
      rule(at.y, HAIRLINE, 0.5)
      at.y += 3
    }
    row(heads, () => 'TH', QUIET)
    for (const cells of rows) {
      const lines = linesOf(cells, 'plain')
      if (makeRoom(heightOf(lines))) {
        // Those who see it see again what the columns are; those who hear it know.
        artifact(() => {
          heads.forEach((head, i) => {
            drawCell(head, i, at.y, QUIET)
          })
        })
        at.y += headHeight
      }
      row(lines, (i) => (i === 0 ? 'TH' : 'TD'), INK)
    }
    element.end()
    if (more !== '') say('P', plain(more), SMALL)
    at.y += 4
  }

  /** How high what stands between a heading and the chart, or the first row, is with that: it is not left alone. */
  function heightUntilShown(from: number): number {
    let height = 0
    for (const each of report.parts.slice(from)) {
      if (each.kind === 'about') height += each.lines.length * SMALL.size * LEADING + 4
      else if (each.kind === 'figures') height += FIGURES_HEIGHT + 4
      else return height + (each.kind === 'chart' ? chartSize(each).height : LEAST_SHOWN)
    }
    return height
  }

  function part(each: ReportPart, i: number): void {
    switch (each.kind) {
      case 'heading':
        at.y += at.y === MARGIN ? 0 : 14
        say('H2', strong(each.text), { size: 13, colour: accent }, { keep: heightUntilShown(i + 1) })
        break
      case 'words':
        words(each.text)
        break
      case 'about':
        for (const line of each.lines) say('P', plain(line), SMALL)
        at.y += 4
        break
      case 'figures':
        figures(each.figures)
        break
      case 'chart':
        chart(each)
        break
      case 'list':
        for (const item of each.items) say('P', plain(item), SMALL)
        at.y += 4
        break
      case 'table':
        table(each)
        break
      case 'fault':
        say('P', plain(each.sentence), { size: 10, colour: SIGNAL })
        break
    }
  }

  function numberPages(): void {
    const { count } = doc.bufferedPageRange()
    for (let i = 0; i < count; i++) {
      doc.switchToPage(i)
      doc.markContent('Artifact', { type: 'Pagination' })
      const [line] = setLines(plain(`Page ${String(i + 1)} of ${String(count)}`), SMALL.size, WIDTH)
      if (line) drawLine(line, PAGE_WIDTH - MARGIN - line.width, PAGE_HEIGHT - MARGIN + 4, SMALL)
      const [name] = setLines(plain(report.title), SMALL.size, WIDTH - 120)
      if (name) drawLine(name, MARGIN, PAGE_HEIGHT - MARGIN + 4, SMALL)
      doc.endMarkedContent()
    }
  }

  head()
  report.parts.forEach(part)
  at.y += 16
  for (const sentence of report.method) say('P', plain(sentence), SMALL)
  root.end()
  numberPages()
  doc.end()
  await ended
  return Buffer.concat(parts)
}

/** Widths of columns that fill the page: as wide as what stands in them, those of words giving way first. */
function columnWidths(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
  figuresFrom: number,
  size: number,
): number[] {
  const wanted = headings.map((heading, i) => {
    const widest = (text: string, weight: Span['weight']) =>
      setLines([{ text, weight }], size, WIDTH)[0]?.width ?? 0
    return 10 + Math.max(widest(heading, 'strong'), ...rows.map((cells) => widest(cells[i] ?? '', 'plain')))
  })
  const sum = (widths: readonly number[]) => widths.reduce((all, each) => all + each, 0)
  const [words, numbers] = [wanted.slice(0, figuresFrom), wanted.slice(figuresFrom)]
  const left = Math.max(WIDTH * 0.4, WIDTH - sum(numbers))
  const fitted =
    sum(numbers) > WIDTH - left ? numbers.map((each) => (each * (WIDTH - left)) / sum(numbers)) : numbers
  return [...words.map((each) => (each * left) / Math.max(1, sum(words))), ...fitted]
}
