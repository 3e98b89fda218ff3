import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Job } from '@flimbo/core/jobs'
import { DEFAULT_SHEET, sheetCells, sheetSides, type SheetLayout } from '@flimbo/core/print'
import { zxing } from '../../bench/decoders.ts'
import { rendered } from '../../bench/ghostscript.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'

let flimbo: Running
let campaignId: number
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  campaignId = (await flimbo.campaign('Table cards')).id
  await flimbo.ask('POST', '/api/codes/series', {
    piece: {
      campaignId,
      name: 'Table {n}',
      slug: 'table-{n}',
      medium: 'print',
      source: 'card',
      sizeMm: 24,
      place: 'Café Gull’s Rest',
      destination: 'https://saltmarsh.example/menu',
    },
    numbers: { from: 1, to: 30, digits: 2 },
  })
})
afterAll(() => flimbo.close())

async function made(order: object): Promise<{ job: Job; pdf: Buffer }> {
  const answer = await flimbo.ask<Job>('POST', '/api/sheet-files', { filter: { campaignId }, ...order })
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body))
  const job = await flimbo.ended(answer.body.id)
  if (job.state !== 'done') return { job, pdf: Buffer.alloc(0) }
  return { job, pdf: (await flimbo.ask<Buffer>('GET', `/api/jobs/${String(job.id)}/file`)).body }
}

const DPI = 200
const pixels = (mm: number) => Math.round((mm / 25.4) * DPI)

/** What a decoder reads in each cell of each page, as Ghostscript draws them. */
async function readCells(pdf: Buffer, layout: SheetLayout): Promise<(string | null)[][]> {
  const { width, height } = sheetSides(layout)
  const bytes = rendered(pdf, 'bitrgb', DPI)
  // Ghostscript rounds a page to whole pixels in its own way.
  const columns = [pixels(width) - 1, pixels(width), pixels(width) + 1].find((each) =>
    [-1, 0, 1].some((by) => bytes.length % (each * (pixels(height) + by) * 3) === 0),
  )
  if (columns === undefined) throw new Error('The pages are not as large as they should be')
  const rows =
    [-1, 0, 1].map((by) => pixels(height) + by).find((each) => bytes.length % (columns * each * 3) === 0) ?? 0
  const pages = bytes.length / (columns * rows * 3)
  const read: (string | null)[][] = []
  for (let page = 0; page < pages; page++) {
    const found: (string | null)[] = []
    for (const cell of sheetCells(layout)) {
      const [w, h] = [pixels(cell.width), pixels(cell.height)]
      const data = new Uint8ClampedArray(w * h * 4).fill(255)
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) {
          const from = ((page * rows + pixels(cell.y) + y) * columns + pixels(cell.x) + x) * 3
          for (let channel = 0; channel < 3; channel++)
            data[(y * w + x) * 4 + channel] = bytes[from + channel] ?? 255
        }
      found.push(await zxing({ width: w, height: h, data }))
    }
    read.push(found)
  }
  return read
}
const link = (n: number) => `HTTP://GO.SALTMARSH.EXAMPLE/TABLE-${String(n).padStart(2, '0')}`
const numbers = (from: number, to: number) =>
  Array.from({ length: to - from + 1 }, (_each, i) => link(from + i))
const nothing = (count: number) => Array.from({ length: count }, () => null)

describe('sheets of labels', () => {
  it('hold a series once each from the cell they begin with, read piece by piece', async () => {
    const layout = {
      ...DEFAULT_SHEET,
      start: 4,
      captions: ['{name}', '{place}'],
      marks: 'cut-and-registration' as const,
    }
    const { pdf, job } = await made({ what: 'sheets', layout })
    expect(job.file?.name).toBe('Table cards sheets.pdf')
    const [first, second, ...more] = await readCells(pdf, layout)
    expect(more).toEqual([])
    expect(first).toEqual([...nothing(3), ...numbers(1, 21)])
    expect(second).toEqual([...numbers(22, 30), ...nothing(15)])
  }, 60_000)

  it('hold one piece many times, on a lying sheet with gaps, as large as it is planned', async () => {
    const layout: SheetLayout = {
      ...DEFAULT_SHEET,
      turned: 'lying',
      columns: 5,
      rows: 4,
      cellWidthMm: 40,
      cellHeightMm: 40,
      gapXMm: 4,
      gapYMm: 2,
      fit: 'planned',
      copies: 20,
    }
    const { pdf } = await made({
      what: 'sheets',
      layout,
      filter: { campaignId, search: 'table-07' },
      colours: 'rgb',
    })
    expect(await readCells(pdf, layout)).toEqual([Array.from({ length: 20 }, () => link(7))])
  }, 60_000)

  it('say which piece is larger than its cell, and what to do', async () => {
    const layout = { ...DEFAULT_SHEET, cellHeightMm: 20, fit: 'planned' }
    const { job } = await made({ what: 'sheets', layout })
    expect([job.state, job.sentence]).toEqual([
      'failed',
      '“Table 01” is 24 × 24 mm, and its cell has room for 60 × 20 mm. Make the cells larger, or have symbols fitted to them.',
    ])
  }, 30_000)

  it('are refused where they would be more pages than anybody prints', async () => {
    const refused = await flimbo.refused('POST', '/api/sheet-files', {
      what: 'sheets',
      filter: { campaignId },
      layout: { ...DEFAULT_SHEET, copies: 10_000 },
    })
    expect(refused.fields?.[0]?.message).toContain('12,500 pages; 5,000 are the most')
  })
})

describe('a proof sheet', () => {
  it('has each piece with its symbol, three a page', async () => {
    const { job, pdf } = await made({ what: 'proof-sheet', filter: { campaignId, search: 'table-0' } })
    expect(job.file?.name).toBe('Table cards proof sheet.pdf')
    const layout: SheetLayout = {
      ...DEFAULT_SHEET,
      columns: 1,
      rows: 3,
      cellWidthMm: 80,
      cellHeightMm: 84,
      topMm: 28,
      leftMm: 10,
    }
    const pages = await readCells(pdf, layout)
    expect(pages).toEqual([numbers(1, 3), numbers(4, 6), numbers(7, 9)])
  }, 60_000)
})
