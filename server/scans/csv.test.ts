import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readTable, unescapeFormula } from '@flimbo/core/plan'
import { scanColumns } from '../results/index.ts'
import { csvHeadings, csvLines } from './csv.ts'

const cell = fc.oneof(
  fc.string({ unit: 'grapheme' }),
  fc.constantFrom('', ' ', '"', ',', '\r\n', '=1+1', "'=x", '-', '@', 'Kraków, "Stare Miasto"'),
  fc.integer(),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.constant(null),
)
const scan = fc
  .tuple(
    fc.integer({ min: 0, max: 7_000_000_000_000 }),
    fc.array(cell, { minLength: scanColumns.length, maxLength: scanColumns.length }),
  )
  .map(([at, cells]) => cells.map((each, i) => (scanColumns[i] === 'at' ? at : each)))

describe('the file of scans', () => {
  it('is read back as what was written, and no text in it begins a formula (RFC 4180)', () => {
    fc.assert(
      fc.property(fc.array(scan, { minLength: 1, maxLength: 20 }), (scans) => {
        const { rows } = readTable(csvHeadings + csvLines(scans), ',')
        expect(rows).toHaveLength(scans.length + 1)
        const headings = rows[0] ?? []
        scans.forEach((each, n) => {
          const row = rows[n + 1] ?? []
          expect(row).toHaveLength(headings.length)
          row.forEach((text, i) => {
            if (typeof each[i] === 'string') expect(text).not.toMatch(/^[=+\-@\t\r]/)
          })
          const expected = each.map((value, i) => {
            if (scanColumns[i] === 'at') return new Date(Number(value)).toISOString()
            return String(value ?? (scanColumns[i] === 'revision' ? '0' : ''))
          })
          expect(row.map((text, i) => (typeof each[i] === 'string' ? unescapeFormula(text) : text))).toEqual(
            expected,
          )
        })
      }),
      { numRuns: 300 },
    )
  })

  it('has no lines where there are no scans', () => {
    expect([csvLines([]), csvHeadings.startsWith('scan,time_utc,code_id,code,')]).toEqual(['', true])
  })
})
