import { readDay } from '../time/index.ts'
import { describe, expect, it } from 'vitest'
import {
  CELL_MAX,
  COLUMNS_MAX,
  cutCell,
  detectMapping,
  fileColumns,
  readMeasure,
  readMoney,
  readNumber,
  readPoint,
  tableFault,
} from './index.ts'

describe('a table that is no plan', () => {
  it('is told by its columns', () => {
    expect(tableFault([['a'], Array.from({ length: COLUMNS_MAX + 1 }, () => '')])).toContain(
      'Line 2 has 501 columns',
    )
    expect(tableFault([Array.from({ length: COLUMNS_MAX }, () => '')])).toBeNull()
  })
  it('has no cell that is longer than any column takes', () => {
    expect([cutCell('x'.repeat(CELL_MAX + 1)).length, cutCell('x')]).toEqual([CELL_MAX, 'x'])
    for (const column of fileColumns([]))
      expect([column.id, column.id === 'campaign' || !column.read('x'.repeat(CELL_MAX)).ok]).toEqual([
        column.id,
        true,
      ])
  })
})

describe('cells that are long and none of what they should be', () => {
  // Each of these took seconds to minutes where an expression tried its parts again from every place.
  const cells = [
    `1${' '.repeat(2500)}!`,
    `1${' '.repeat(CELL_MAX)}!`,
    'a'.repeat(CELL_MAX),
    '1'.repeat(CELL_MAX),
    `${'1,'.repeat(5000)}!`,
    '/'.repeat(CELL_MAX),
    `${'A'.repeat(3)} `.repeat(2500),
  ]
  it.each(cells.map((cell) => [cell.slice(0, 12), cell]))('%s… are refused at once', (_name, cell) => {
    for (const read of [
      (text: string) => readMeasure(text, { mm: 1 }),
      readMoney,
      (text: string) => readNumber(text),
      readDay,
      readPoint,
    ])
      expect(read(cell).ok).toBe(false)
    for (const column of fileColumns([])) column.read(cell)
  })
  it('and headings by the hundred are matched once each', () => {
    expect(
      detectMapping(
        Array.from({ length: 500_000 }, (_, i) => (i === 7 ? 'Medium' : `h ${String(i)}`)),
        fileColumns([]),
      ).indexOf('medium'),
    ).toBe(7)
  })
})
