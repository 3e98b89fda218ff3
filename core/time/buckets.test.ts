import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  buckets,
  dayIn,
  daysBefore,
  daysBetween,
  QUARTER_MS,
  shiftDay,
  spanOfDays,
  startOfDay,
  TooManyBuckets,
  unitFor,
  UNITS,
} from './index.ts'

const HOUR = 3_600_000
const iso = (at: number) => new Date(at).toISOString()
const hoursOf = (zone: string, day: string) => buckets(zone, spanOfDays(zone, day, day), 'hour')

describe('a day in a zone', () => {
  // IANA time zone database: dates on which the clocks changed or stood at odd offsets.
  it.each([
    ['Europe/Berlin', '2026-03-29', '2026-03-28T23:00:00.000Z', 23, 'an hour lost'],
    ['Europe/Berlin', '2026-10-25', '2026-10-24T22:00:00.000Z', 25, 'an hour twice'],
    ['Europe/London', '2026-03-29', '2026-03-29T00:00:00.000Z', 23, 'an hour lost at one in the morning'],
    ['America/New_York', '2026-11-01', '2026-11-01T04:00:00.000Z', 25, 'an hour twice'],
    ['Africa/Cairo', '2026-04-24', '2026-04-23T22:00:00.000Z', 23, 'midnight itself skipped'],
    ['America/Havana', '2026-11-01', '2026-11-01T04:00:00.000Z', 25, 'midnight twice'],
    ['Asia/Kathmandu', '2026-07-01', '2026-06-30T18:15:00.000Z', 24, 'a quarter of an hour off'],
    ['Pacific/Chatham', '2026-07-01', '2026-06-30T11:15:00.000Z', 24, 'three quarters off'],
    ['Asia/Kolkata', '2026-07-01', '2026-06-30T18:30:00.000Z', 24, 'half an hour off'],
    ['UTC', '2026-07-01', '2026-07-01T00:00:00.000Z', 24, 'nothing special'],
  ])('%s on %s begins at %s and has %i hours: %s', (zone, day, start, hours) => {
    expect(iso(startOfDay(zone, day))).toBe(start)
    expect(hoursOf(zone, day)).toHaveLength(hours)
    expect(spanOfDays(zone, day, day).end - spanOfDays(zone, day, day).start).toBe(hours * HOUR)
  })

  it('cuts the hour in which half an hour is lost or doubled (Lord Howe)', () => {
    const zone = 'Australia/Lord_Howe'
    const lengths = (day: string) => hoursOf(zone, day).map(({ start, end }) => (end - start) / HOUR)
    expect(lengths('2026-10-04').reduce((a, b) => a + b)).toBe(23.5)
    expect(lengths('2026-10-04')).toContain(0.5)
    expect(lengths('2026-04-05').reduce((a, b) => a + b)).toBe(24.5)
  })

  it('is skipped where a country crossed the date line (Samoa, 30 December 2011)', () => {
    expect(startOfDay('Pacific/Apia', '2011-12-31') - startOfDay('Pacific/Apia', '2011-12-29')).toBe(
      24 * HOUR,
    )
  })
})

describe('weeks, months and years', () => {
  const days = (unit: 'week' | 'month' | 'year', from: string, to: string) =>
    buckets('Europe/Berlin', spanOfDays('Europe/Berlin', from, to), unit).map(({ start }) =>
      dayIn('Europe/Berlin', start),
    )
  it('weeks begin on Monday and the first may be cut (ISO 8601)', () => {
    expect(days('week', '2026-10-22', '2026-11-03')).toEqual(['2026-10-22', '2026-10-26', '2026-11-02'])
  })
  it('months have their own lengths', () => {
    expect(days('month', '2026-01-31', '2026-03-01')).toEqual(['2026-01-31', '2026-02-01', '2026-03-01'])
  })
  it('years begin on the first of January, local time', () => {
    expect(days('year', '2024-12-31', '2026-01-01')).toEqual(['2024-12-31', '2025-01-01', '2026-01-01'])
  })
})

describe('for every zone, span and unit', () => {
  const zone = fc.constantFrom(...Intl.supportedValuesOf('timeZone'))
  const day = fc.integer({ min: 0, max: 6000 }).map((n) => shiftDay('2020-01-01', n))
  const unit = fc.constantFrom(...UNITS)

  it('buckets follow each other without gap or overlap and fill the span', () => {
    fc.assert(
      fc.property(zone, day, fc.integer({ min: 0, max: 40 }), unit, (z, from, more, u) => {
        const span = spanOfDays(z, from, shiftDay(from, more))
        const parts = buckets(z, span, u)
        expect(parts[0]?.start).toBe(span.start)
        expect(parts.at(-1)?.end).toBe(span.end)
        parts.forEach((part, i) => {
          expect(part.end).toBeGreaterThan(part.start)
          expect(part.start % QUARTER_MS).toBe(0)
          if (i > 0) expect(part.start).toBe(parts[i - 1]?.end)
        })
      }),
      { numRuns: 200 },
    )
  })

  it('a day begins where the calendar of the zone turns, by another way of reading it', () => {
    fc.assert(
      fc.property(zone, day, (z, d) => {
        const start = startOfDay(z, d)
        const written = (at: number) =>
          new Intl.DateTimeFormat('en-CA', {
            timeZone: z,
            year: 'numeric',
            month: '2-digit',
            day: '2-digit',
          }).format(at)
        expect(written(start) >= d).toBe(true)
        expect(written(start - 1) < d).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
})

describe('choosing days', () => {
  it('compares with as many days just before', () => {
    expect(daysBefore('2026-03-01', '2026-03-31')).toEqual({ from: '2026-01-29', to: '2026-02-28' })
    expect(daysBetween('2026-01-29', '2026-02-28')).toBe(daysBetween('2026-03-01', '2026-03-31'))
  })
  it.each([
    [1, 'hour'],
    [3, 'hour'],
    [4, 'day'],
    [92, 'day'],
    [93, 'week'],
    [732, 'week'],
    [733, 'month'],
  ] as const)('shows %i days by %s', (days, unit) => {
    expect(unitFor(days)).toBe(unit)
  })
  it('refuses more columns than anybody can read', () => {
    expect(() => buckets('UTC', spanOfDays('UTC', '2020-01-01', '2026-01-01'), 'hour')).toThrow(
      TooManyBuckets,
    )
  })
})
