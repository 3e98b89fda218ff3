import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buckets, QUARTER_MS, shiftDay, spanOfDays, UNITS } from '../time/index.ts'
import { countInto } from './index.ts'

describe('counting into buckets', () => {
  it('passes over what lies before and after', () => {
    const spans = [
      { start: 0, end: 4 * QUARTER_MS },
      { start: 4 * QUARTER_MS, end: 8 * QUARTER_MS },
    ]
    const quarters = [-1, 0, 3, 4, 7, 8].map((quarter) => ({ quarter, scans: 1, uniques: 0 }))
    expect(countInto(spans, quarters).map((b) => b.scans)).toEqual([2, 2])
  })

  const zone = fc.constantFrom(...Intl.supportedValuesOf('timeZone'))
  const day = fc.integer({ min: 0, max: 6000 }).map((n) => shiftDay('2020-01-01', n))

  it('every scan is in exactly one bucket, whatever the unit', () => {
    const quarters = fc.uniqueArray(fc.integer({ min: 0, max: 40 * 96 - 1 }), { maxLength: 60 })
    fc.assert(
      fc.property(zone, day, fc.constantFrom(...UNITS), quarters, (z, from, u, offsets) => {
        const span = spanOfDays(z, from, shiftDay(from, 40))
        const counts = offsets
          .sort((a, b) => a - b)
          .map((offset) => ({ quarter: span.start / QUARTER_MS + offset, scans: offset + 2, uniques: 1 }))
        const summed = countInto(buckets(z, span, u), counts)
        expect(summed.reduce((sum, b) => sum + b.scans, 0)).toBe(counts.reduce((sum, c) => sum + c.scans, 0))
        expect(summed.reduce((sum, b) => sum + b.uniques, 0)).toBe(counts.length)
      }),
      { numRuns: 100 },
    )
  })
})
