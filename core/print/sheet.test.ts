import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DEFAULT_SHEET,
  sheetCells,
  sheetCount,
  sheetFaults,
  sheetLayout,
  sheetOrder,
  sheetSides,
  SHEET_SIZES,
} from './index.ts'

describe('a sheet', () => {
  it('has the sides of its format, upright or lying', () => {
    // ISO 216: each side of A3 and A4 is √2 times the other; A3 is two A4.
    expect(SHEET_SIZES.A3[1] / SHEET_SIZES.A3[0]).toBeCloseTo(Math.SQRT2, 2)
    expect(SHEET_SIZES.A3).toEqual([SHEET_SIZES.A4[1], 2 * SHEET_SIZES.A4[0]])
    expect(sheetSides({ ...DEFAULT_SHEET, turned: 'lying' })).toEqual({ width: 297, height: 210 })
    expect(sheetSides({ ...DEFAULT_SHEET, size: 'own', widthMm: 100, heightMm: 50 })).toEqual({
      width: 100,
      height: 50,
    })
  })

  it('has cells that lie on it and not on one another, wherever nothing is wrong with it', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true })
    const layouts = fc.record({
      columns: fc.integer({ min: 1, max: 8 }),
      rows: fc.integer({ min: 1, max: 12 }),
      cellWidthMm: mm(5, 120),
      cellHeightMm: mm(5, 120),
      leftMm: mm(0, 40),
      topMm: mm(0, 40),
      gapXMm: mm(0, 10),
      gapYMm: mm(0, 10),
    })
    fc.assert(
      fc.property(layouts, (given) => {
        const layout = sheetLayout.parse(given)
        const cells = sheetCells(layout)
        const { width, height } = sheetSides(layout)
        const isWithin = cells.every(
          (cell) => cell.x + cell.width <= width + 1e-4 && cell.y + cell.height <= height + 1e-4,
        )
        expect(sheetFaults(layout).length === 0).toBe(isWithin)
        cells.forEach((a, i) => {
          for (const b of cells.slice(i + 1))
            expect(
              a.x + a.width <= b.x + 1e-6 ||
                b.x + b.width <= a.x + 1e-6 ||
                a.y + a.height <= b.y + 1e-6 ||
                b.y + b.height <= a.y + 1e-6,
            ).toBe(true)
        })
      }),
    )
  })

  it.each([
    [1, 1, 1, 1],
    [24, 1, 1, 1],
    [25, 1, 1, 2],
    [1, 24, 1, 1],
    [2, 24, 1, 2],
    [1, 100, 5, 5],
  ])('%i pieces from cell %i on, %i times each, take %i of 24 cells', (pieces, start, copies, sheets) => {
    expect(sheetCount({ ...DEFAULT_SHEET, start, copies }, pieces)).toBe(
      Math.ceil((start - 1 + pieces * copies) / 24),
    )
    if (copies === 1) expect(sheetCount({ ...DEFAULT_SHEET, start, copies }, pieces)).toBe(sheets)
  })

  it.each([
    [{ columns: 4 }, 'layout.columns', '4 columns reach 255 mm from the left; the sheet is 210 mm wide.'],
    [{ rows: 9 }, 'layout.rows', '9 rows reach 303 mm from the top'],
    [{ start: 25 }, 'layout.start', 'A sheet has 24 cells'],
    [{ copies: 1.5 }, 'layout.copies', 'whole number'],
    [{ cellWidthMm: 0 }, 'layout.cellWidthMm', 'at least 5 mm'],
  ])('with %j is refused at %s', (layout, path, words) => {
    const read = sheetOrder.safeParse({ what: 'sheets', filter: { campaignId: 1 }, layout })
    const [issue] = read.error?.issues ?? []
    expect([issue?.path.join('.'), issue?.message]).toEqual([path, expect.stringContaining(words)])
  })
})
