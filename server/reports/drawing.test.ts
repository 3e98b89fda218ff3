import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answerRow as row } from '../../core/tests/answerRow.ts'
import { PLAIN_REPORT_LOOK, type MadeQuestion, type MadeReport } from '@flimbo/core/reports'
import { NO_FIGURES, type AnswerRow } from '@flimbo/core/results'
import { readPdf } from '../tests/pdfText.ts'
import { chartMarkup, chartTree } from './chartSvg.ts'
import { runsOf, widthOfText } from './fonts.ts'
import { reportPdf } from './pdf.ts'
import { boxOf } from './pdfChart.ts'
import { columnWidths } from './pdfTable.ts'
import { setLines, type Span } from './setLines.ts'
import { readSvg } from './svgTree.ts'

function question(by: MadeQuestion['by'], rows: AnswerRow[], more: Partial<MadeQuestion> = {}): MadeQuestion {
  const total = { ...NO_FIGURES, scans: 60, uniques: 60, before: null }
  return {
    ...{
      kind: 'question',
      key: 'q',
      title: 'Question',
      of: '',
      zone: 'UTC',
      from: '2026-07-01',
      to: '2026-07-02',
    },
    ...{ what: 'scans', by, narrowed: [], against: null, before: null, total, marks: [], expected: [] },
    answer: { rows, rowsTotal: rows.length, total, names: {}, spots: {}, leads: [], leavesOutFolded: false },
    ...{ rowsSince: null, chosen: [], drawnAs: 'usual', hasPatterns: false, rows: 100, spot: null },
    ...more,
  }
}
const made = (...sections: MadeReport['sections']): MadeReport => ({
  ...{ name: 'July', owner: 'Saltmarsh Line', campaign: '', zone: 'UTC', madeAt: 0, currency: 'EUR' },
  look: PLAIN_REPORT_LOOK,
  sections,
})
const pdfOf = async (...sections: MadeReport['sections']) => readPdf(await reportPdf(made(...sections), null))
const wordsOf = (text: string): MadeReport['sections'][number] => ({
  kind: 'words',
  key: 'w',
  text: [{ kind: 'paragraph', runs: [{ text }] }],
})

describe('letters', () => {
  it('are of the font that has them, and none is lost: what no font has is told', () => {
    const texts = (text: string) => runsOf(text, 'plain').map((run) => run.text)
    expect(texts('Žatec ğ')).toEqual(['Žatec ', 'ğ'].flatMap((each) => texts(each)))
    expect(texts('Пирс').join('')).toBe('Пирс')
    expect(texts('海').join('')).toBe('\uFFFD')
    // What shows nothing takes no room, and turns no text around (Unicode, category Cf).
    expect(texts('a\u202Eb\u0000c').join('')).toBe('abc')
  })

  it('are set in lines that are no wider than they may be, with every word in its place', () => {
    const spans = fc.array(
      fc.record({
        text: fc.stringMatching(/^[a-zA-Z \u00e4\u00f6\n]{0,60}$/),
        weight: fc.constantFrom('plain' as const, 'strong' as const),
      }),
      { maxLength: 4 },
    )
    fc.assert(
      fc.property(spans, fc.integer({ min: 40, max: 400 }), (all: Span[], width) => {
        const lines = setLines(all, 10, width)
        for (const line of lines) expect(line.width).toBeLessThanOrEqual(width + 1e-6)
        const said = lines.map(({ runs }) => runs.map(({ text }) => text).join('')).join('')
        expect(said.replace(/\s/g, '')).toBe(
          all
            .map(({ text }) => text)
            .join('')
            .replace(/\s/g, ''),
        )
      }),
      { numRuns: 60 },
    )
  })

  it('are as wide as they are: heavier ones wider, twice as many twice as wide', () => {
    expect(widthOfText('nnnn', 12)).toBeCloseTo(2 * widthOfText('nn', 12), 9)
    expect(widthOfText('Scans', 12, true)).toBeGreaterThan(widthOfText('Scans', 12))
  })
})

describe('columns', () => {
  it('fill the page, whatever stands in them', () => {
    const cell = fc.stringMatching(/^[a-z0-9 ]{0,40}$/)
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { maxLength: 5 }), (rows) => {
        const widths = columnWidths({ headings: ['Piece', 'Scans', 'Unique'], rows, figuresFrom: 1 }, 400)
        expect(widths.reduce((all, each) => all + each, 0)).toBeLessThanOrEqual(400 + 1e-6)
        expect(widths[0]).toBeGreaterThanOrEqual(160)
      }),
      { numRuns: 40 },
    )
  })
})

describe('a drawing', () => {
  it('is read without style sheets, with inline styles as attributes', () => {
    const tree = readSvg(
      '<svg viewBox="0 0 9 9"><style>a{}</style><g class="x" pointer-events="none"><text style="font-size:12px;fill:red" ecmeta_series_index="1">A &amp; B</text></g></svg>',
    )
    expect(tree.children).toHaveLength(1)
    expect(tree.children[0]).toMatchObject({
      tag: 'g',
      attributes: {},
      children: [{ tag: 'text', text: 'A & B', attributes: { 'font-size': '12px', fill: 'red' } }],
    })
  })

  // SVG 1.1, section 8.3: small letters are relative to where the path is.
  it.each([
    ['M-5 -5.5l171.4 0l0 25l-171.4 0Z', [-5, -5.5, 166.4, 19.5]],
    ['M1 2H7V9Z', [1, 2, 7, 9]],
    ['M0 0h3v4', [0, 0, 3, 4]],
  ])('has a box about its points: %s', (path, [left = 0, top = 0, right = 0, bottom = 0]) => {
    const box = boxOf(path)
    for (const [name, value] of Object.entries({ left, top, right, bottom }))
      expect(box[name as keyof typeof box]).toBeCloseTo(value, 9)
  })

  it('is a chart as markup that a strict policy takes, of the same texts as its tree', () => {
    const option = { xAxis: { data: ['“A” & <b>'] }, yAxis: {}, series: [{ type: 'bar', data: [5] }] }
    const { markup } = chartMarkup({ kind: 'chart', option, height: 200, said: '' })
    expect(markup).not.toMatch(/\sstyle=|<style|class=/)
    expect(markup).toContain('&lt;b&gt;')
    const texts: string[] = []
    const walk = (node: ReturnType<typeof chartTree>) => {
      if (node.tag === 'text') texts.push(node.text)
      node.children.forEach(walk)
    }
    walk(chartTree({ option, height: 200 }))
    expect(texts).toContain('“A” & <b>')
  })
})

describe('a report as a PDF', () => {
  it('goes on over pages, each numbered, with its headings above every part of a table', async () => {
    const many = Array.from({ length: 100 }, (_, i) => row([`Piece number ${String(i)}`], 100 - i))
    const { pages } = await pdfOf(question(['medium'], many, { drawnAs: 'none' }))
    expect(pages.length).toBeGreaterThan(1)
    for (const [i, page] of pages.entries()) {
      expect(page).toContain(`Page ${String(i + 1)} of ${String(pages.length)}`)
      expect(page).toContain('Unique scans')
    }
    const all = pages.join(' ')
    for (let i = 0; i < 100; i++) expect(all).toContain(`Piece number ${String(i)} `)
  })

  it('has the texts of charts as text, patterns and maps included', async () => {
    const rows = [row(['DE'], 40), row(['DK'], 20)]
    const bars = await pdfOf(question(['country'], rows, { hasPatterns: true, rows: 0 }))
    for (const text of ['Germany', 'Denmark', '40']) expect(bars.text).toContain(text)
    const map = await pdfOf(question(['country'], rows, { drawnAs: 'map', rows: 0 }))
    expect([map.tags.includes('Figure'), map.alternatives]).toEqual([true, ['Question: 60 scans, 2 rows']])
    const hours = Array.from({ length: 24 }, (_, i) => row([`1-${String(i).padStart(2, '0')}`], i))
    expect((await pdfOf(question(['hourOfWeek'], hours))).text).toContain('Mon')
    const crossed = [row(['2026-07-01', 'print'], 5), row(['2026-07-02', 'card'], 3)]
    expect((await pdfOf(question(['day', 'medium'], crossed, { rows: 0 }))).text).toContain('print')
    const flow = [row(['print', 'DE'], 5), row(['card', 'DK'], 3)]
    const flown = await pdfOf(question(['medium', 'country'], flow, { drawnAs: 'flow', rows: 0 }))
    expect(flown.text).toContain('Germany')
  })

  it('says what somebody wrote, however long, and what no line can hold in one word', async () => {
    const long = 'x'.repeat(400)
    const { text } = await pdfOf(wordsOf(`${'A good month. '.repeat(600)}${long}`))
    expect(text.match(/month\./g)).toHaveLength(600)
    expect(text.replace(/[^x]/g, '')).toHaveLength(400)
  })

  it('of nothing is a page with its title', async () => {
    const { pages, text } = await pdfOf()
    expect([pages.length, text.includes('July')]).toEqual([1, true])
  })
})
