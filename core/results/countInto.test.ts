import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buckets, QUARTER_MS, shiftDay, spanOfDays, UNITS } from '../time/index.ts'
import { countInto, emptyBuckets } from './index.ts'

describe('counting into buckets', () => {
  it('passes over what lies before and after', () => {
    const spans = [
      { start: 0, end: 4 * QUARTER_MS },
      { start: 4 * QUARTER_MS, end: 8 * QUARTER_MS },
    ]
    const filled = emptyBuckets(spans)
    countInto(filled, { quarter: [-1, 0, 3, 4, 7, 8], count: Array(6).fill(1), uniques: Array(6).fill(0) })
    expect(filled.map((b) => b.scans)).toEqual([2, 2])
  })

  const zone = fc.constantFrom(...Intl.supportedValuesOf('timeZone'))
  const day = fc.integer({ min: 0, max: 6000 }).map((n) => shiftDay('2020-01-01', n))

  it('every scan is in exactly one bucket, whatever the unit', () => {
    const quarters = fc.uniqueArray(fc.integer({ min: 0, max: 40 * 96 - 1 }), { maxLength: 60 })
    fc.assert(
      fc.property(zone, day, fc.constantFrom(...UNITS), quarters, (z, from, u, offsets) => {
        const span = spanOfDays(z, from, shiftDay(from, 40))
        offsets.sort((a, b) => a - b)
        const quarter = offsets.map((offset) => span.start / QUARTER_MS + offset)
        const count = offsets.map((offset) => offset + 2)
        const filled = emptyBuckets(buckets(z, span, u))
        countInto(filled, { quarter, count, uniques: count.map(() => 1) })
        expect(filled.reduce((sum, b) => sum + b.scans, 0)).toBe(count.reduce((sum, c) => sum + c, 0))
        expect(filled.reduce((sum, b) => sum + b.uniques, 0)).toBe(count.length)
      }),
      { numRuns: 100 },
    )
  })
})
