import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rulerMarks } from './index.ts'

describe('the marks of a ruler', () => {
  it('never run into each other, whatever is measured and however small it is shown', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 5000, noNaN: true }),
        fc.double({ min: 0.02, max: 1, noNaN: true }),
        (mm, scale) => {
          const { labels, ticks } = rulerMarks(mm, scale)
          labels.slice(1).forEach((at, i) => {
            expect((at - (labels[i] ?? 0)) * scale).toBeGreaterThanOrEqual(9 - 1e-9)
          })
          expect(labels.every((at) => ticks.includes(at))).toBe(true)
          expect(Math.max(...ticks)).toBeLessThanOrEqual(mm + 1e-6)
        },
      ),
    )
  })
  it.each([
    [30, 1, [0, 10, 20, 30]],
    [240, 0.5, [0, 20, 40, 60, 80, 100, 120, 140, 160, 180, 200, 220, 240]],
    [8, 1, [0]],
  ])('of %i mm at %f have the numbers %j', (mm, scale, labels) => {
    expect(rulerMarks(mm, scale).labels).toEqual(labels)
  })
})
