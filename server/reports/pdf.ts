import PDFDocument from 'pdfkit'
import { REPORT_CHART_PX, reportDocument, type MadeReport, type ReportPart } from '@flimbo/core/reports'
import type { RichText, Run } from '@flimbo/core/fields'
import { chartTree } from './chartSvg.ts'
import type { Logo } from './logo.ts'
import { drawSvg } from './pdfChart.ts'
import {
  BODY,
  HEIGHT,
  INK,
  LEADING,
  MARGIN,
  pdfPages,
  plain,
  SIGNAL,
  SMALL,
  strong,
  WIDTH,
  type Document,
  type Style,
} from './pdfPages.ts'
import { drawTable } from './pdfTable.ts'
import { setLines, type Span } from './setLines.ts'

type Part<K extends ReportPart['kind']> = Extract<ReportPart, { kind: K }>

const [LOGO_HEIGHT, LOGO_WIDTH] = [48, 140]
const FIGURES_HEIGHT = 46
/** Less than this is not left under a heading. */
const LEAST_SHOWN = 60

/** How a chart stands on a page: one that is higher than a page, with its heading, is made smaller. */
function chartSize({ height }: { readonly height: number }) {
  const scale = Math.min(WIDTH / REPORT_CHART_PX, (HEIGHT - 120) / height)
  return { scale, height: height * scale }
}

/** How high what stands between a heading and the chart, or the first row, is with that: it is not left alone. */
function heightUntilShown(parts: readonly ReportPart[]): number {
  let height = 0
  for (const part of parts) {
    if (part.kind === 'about') height += part.lines.length * SMALL.size * LEADING + 4
    else if (part.kind === 'figures') height += FIGURES_HEIGHT + 4
    else return height + (part.kind === 'chart' ? chartSize(part).height : LEAST_SHOWN)
  }
  return height
}

/** A document without pages: tagged, in a language, with a title that its window shows (ISO 14289-1). */
function newDocument({ name, owner, madeAt }: MadeReport): Document {
  return new PDFDocument({
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
    font: null,
    info: {
      Title: name,
      Author: owner,
      Creator: 'Flimbo',
      Producer: 'Flimbo',
      CreationDate: new Date(madeAt),
      ModDate: new Date(madeAt),
    },
    // Its types know neither a document without a font nor this part of the standard.
  } as unknown as PDFKit.PDFDocumentOptions)
}

/** Draws a report as a PDF: vector charts, real text, tagged for those who have it read to them, pages numbered. */
export async function reportPdf(made: MadeReport, logo: Logo | null): Promise<Uint8Array> {
  const report = reportDocument(made)
  const { accent } = made.look
  const doc = newDocument(made)
  const bytes: Buffer[] = []
  doc.on('data', (part: Buffer) => bytes.push(part))
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve)
    doc.on('error', reject)
  })
  const pages = pdfPages(doc, accent)

  function head(): void {
    if (logo) {
      const width = Math.min(LOGO_WIDTH, (LOGO_HEIGHT * logo.width) / logo.height)
      pages.artifact(() => {
        doc.image(logo.bytes as never, MARGIN + WIDTH - width, MARGIN, { fit: [width, LOGO_HEIGHT] })
      })
    }
    const width = WIDTH - (logo ? LOGO_WIDTH + 20 : 0)
    pages.say('H1', strong(report.title), { size: 20, colour: accent }, { width })
    if (report.subtitle !== '') pages.say('P', plain(report.subtitle), SMALL, { width })
    if (logo) pages.skipTo(MARGIN + LOGO_HEIGHT)
    pages.skip(6)
    pages.rule(accent, 2)
    pages.skip(14)
  }

  const spanOf = ({ text, bold = false, italic = false, link }: Run): Span => ({
    text,
    weight: bold ? 'strong' : 'plain',
    isSlanted: italic,
    link,
  })
  function words(blocks: RichText): void {
    for (const block of blocks) {
      pages.skip(4)
      if (block.kind === 'paragraph') pages.say('P', block.runs.map(spanOf), BODY)
      else
        block.items.forEach((item, i) => {
          const mark = block.isNumbered ? `${String(i + 1)}. ` : '• '
          pages.say('P', [...plain(mark), ...item.map(spanOf)], BODY, { indent: 12 })
        })
      pages.skip(4)
    }
  }

  function figures(all: Part<'figures'>['figures']): void {
    pages.makeRoom(FIGURES_HEIGHT)
    const top = pages.top()
    all.forEach(({ label, value, beside }, i) => {
      const element = doc.struct('P')
      pages.root.add(element)
      const piece = (spans: readonly Span[], style: Style, down: number) => {
        const [line] = setLines(spans, style.size, WIDTH / 3 - 8)
        if (line)
          element.add(
            doc.struct('Span', {}, () => {
              pages.drawLine(line, MARGIN + (i * WIDTH) / 3, top + down, style)
            }),
          )
      }
      piece(plain(label), SMALL, 0)
      piece(strong(value), { size: 16, colour: INK }, 11)
      piece(plain(beside), SMALL, 31)
      element.end()
    })
    pages.skip(FIGURES_HEIGHT + 4)
  }

  function chart(part: Part<'chart'>): void {
    const { scale, height } = chartSize(part)
    pages.makeRoom(height)
    const top = pages.top()
    const tree = chartTree(part)
    // Its types do not know where a figure stands.
    const options = { alt: part.said, bbox: [MARGIN, top, MARGIN + WIDTH, top + height] } as never
    pages.root.add(
      doc.struct('Figure', options, () => {
        doc.save()
        doc.translate(MARGIN, top).scale(scale)
        drawSvg(doc, tree)
        doc.restore()
        doc.fillOpacity(1).strokeOpacity(1).undash()
      }),
    )
    pages.skip(height + 8)
  }

  function draw(part: ReportPart, i: number): void {
    switch (part.kind) {
      case 'heading': {
        if (!pages.isAtTop()) pages.skip(14)
        const keep = heightUntilShown(report.parts.slice(i + 1))
        pages.say('H2', strong(part.text), { size: 13, colour: accent }, { keep })
        break
      }
      case 'words':
        words(part.text)
        break
      case 'about':
        for (const line of part.lines) pages.say('P', plain(line), SMALL)
        pages.skip(4)
        break
      case 'figures':
        figures(part.figures)
        break
      case 'chart':
        chart(part)
        break
      case 'list':
        for (const item of part.items) pages.say('P', plain(item), SMALL)
        pages.skip(4)
        break
      case 'table':
        drawTable(doc, pages, part)
        break
      case 'fault':
        pages.say('P', plain(part.sentence), { size: 10, colour: SIGNAL })
        break
    }
  }

  head()
  report.parts.forEach(draw)
  pages.skip(16)
  for (const sentence of report.method) pages.say('P', plain(sentence), SMALL)
  pages.end(report.title)
  doc.end()
  await ended
  return Buffer.concat(bytes)
}
