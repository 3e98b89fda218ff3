import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { distanceBand, DISTANCE_BANDS, filtersQuery, toggleKey, withoutDimension } from './index.ts'

describe('filters', () => {
  it('take a key in and out again, an empty one too', () => {
    const once = toggleKey({}, 'channel', '')
    expect(once).toEqual({ channel: [''] })
    expect(toggleKey(toggleKey(once, 'channel', 'Event'), 'channel', '')).toEqual({ channel: ['Event'] })
    expect(toggleKey(once, 'channel', '')).toEqual({})
  })

  it('do not narrow their own dimension; those of time are one', () => {
    const filters = { day: ['2026-07-01'], city: ['DE\t\tKiel'], weekday: ['1'] }
    expect(withoutDimension(filters, 'city')).toEqual({ day: ['2026-07-01'], weekday: ['1'] })
    expect(withoutDimension(filters, 'week')).toEqual({ city: ['DE\t\tKiel'], weekday: ['1'] })
  })

  it('are read from a query, and refused where they are none', () => {
    expect(filtersQuery.parse('{"city":["DE\\t\\tKiel"],"channel":[""]}')).toEqual({
      city: ['DE\t\tKiel'],
      channel: [''],
    })
    for (const text of ['', '{', '[]', 'null', '{"shoe":["1"]}', '{"city":[]}', '{"city":"Kiel"}'])
      expect([text, filtersQuery.safeParse(text).success]).toEqual([text, false])
  })
})

describe('bands of distance', () => {
  it('follow each other without a gap, whatever the distance', () => {
    expect(DISTANCE_BANDS).toEqual(['0-1', '1-5', '5-20', '20-50', '50-100', '100-300', '300-1000', '1000-'])
    expect([0, 0.999, 1, 999.9, 1000, 20_015].map(distanceBand)).toEqual([
      '0-1',
      '0-1',
      '1-5',
      '300-1000',
      '1000-',
      '1000-',
    ])
    fc.assert(
      fc.property(fc.double({ min: 0, max: 20_016, noNaN: true }), (km) => {
        const [from, to] = distanceBand(km).split('-').map(Number)
        expect(km).toBeGreaterThanOrEqual(from ?? NaN)
        expect(km).toBeLessThan(to === 0 ? Infinity : (to ?? NaN))
      }),
    )
  })
})
