import type { ReportPart } from '@flimbo/core/reports'
import {
  HAIRLINE,
  INK,
  LEADING,
  MARGIN,
  plain,
  QUIET,
  SMALL,
  WIDTH,
  type Document,
  type PdfPages,
} from './pdfPages.ts'
import { setLines, type Line, type Span } from './setLines.ts'

type Table = Extract<ReportPart, { kind: 'table' }>

const SIZE = 8.5
const STEP = SIZE * LEADING
const PADDING = 8
/** Words have at least so much of the page's width. */
const WORDS_SHARE = 0.4

const sum = (widths: readonly number[]) => widths.reduce((all, each) => all + each, 0)

/** Widths of columns that fill the page: as wide as what stands in them, those of words giving way first. */
export function columnWidths(
  { headings, rows, figuresFrom }: Pick<Table, 'headings' | 'rows' | 'figuresFrom'>,
  whole: number,
): number[] {
  const widest = (text: string, weight: Span['weight']) =>
    setLines([{ text, weight }], SIZE, whole)[0]?.width ?? 0
  const wanted = headings.map(
    (heading, i) =>
      PADDING +
      2 +
      Math.max(widest(heading, 'strong'), ...rows.map((cells) => widest(cells[i] ?? '', 'plain'))),
  )
  const [words, numbers] = [wanted.slice(0, figuresFrom), wanted.slice(figuresFrom)]
  const left = Math.max(whole * WORDS_SHARE, whole - sum(numbers))
  const room = whole - left
  const fitted = sum(numbers) > room ? numbers.map((each) => (each * room) / sum(numbers)) : numbers
  return [...words.map((each) => (each * left) / Math.max(1, sum(words))), ...fitted]
}

/** Draws a table: its headings stand again at the top of each page it goes on to. */
export function drawTable(doc: Document, pages: PdfPages, table: Table): void {
  const { caption, headings, figuresFrom, rows, more } = table
  const widths = columnWidths(table, WIDTH)
  const linesOf = (cells: readonly string[], weight: Span['weight']) =>
    cells.map((text, i) => setLines([{ text, weight }], SIZE, (widths[i] ?? 40) - PADDING))
  const heightOf = (cells: readonly (readonly Line[])[]) =>
    Math.max(1, ...cells.map(({ length }) => length)) * STEP + 5
  const heads = linesOf(headings, 'strong')
  const element = doc.struct('Table', { title: caption })

  function drawCell(lines: readonly Line[], i: number, colour: string): void {
    const left = MARGIN + sum(widths.slice(0, i))
    lines.forEach((line, down) => {
      const x = i >= figuresFrom ? left + (widths[i] ?? 0) - PADDING - line.width : left
      pages.drawLine(line, x, pages.top() + down * STEP, { size: SIZE, colour })
    })
  }

  function drawRow(
    cells: readonly (readonly Line[])[],
    scopeOf: (i: number) => 'Row' | 'Column' | null,
  ): void {
    const row = doc.struct('TR')
    element.add(row)
    cells.forEach((lines, i) => {
      const scope = scopeOf(i)
      row.add(
        doc.struct(scope === null ? 'TD' : 'TH', {}, () => {
          drawCell(lines, i, scope === 'Column' ? QUIET : INK)
        }),
      )
    })
    row.end()
    pages.skip(heightOf(cells) - 2)
    pages.rule(HAIRLINE, 0.5)
    pages.skip(3)
  }

  pages.makeRoom(heightOf(heads) + (rows[0] ? heightOf(linesOf(rows[0], 'plain')) : 0))
  pages.root.add(element)
  drawRow(heads, () => 'Column')
  for (const cells of rows) {
    const lines = linesOf(cells, 'plain')
    if (pages.makeRoom(heightOf(lines))) {
      // Those who see it see again what the columns are; those who hear it know.
      pages.artifact(() => {
        heads.forEach((head, i) => {
          drawCell(head, i, QUIET)
        })
      })
      pages.skip(heightOf(heads))
    }
    drawRow(lines, (i) => (i === 0 ? 'Row' : null))
  }
  element.end()
  if (more !== '') pages.say('P', plain(more), SMALL)
  pages.skip(4)
}
