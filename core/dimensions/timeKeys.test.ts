import { tz } from '@date-fns/tz'
import { format } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { QUARTER_MS } from '../time/index.ts'
import { DAY_QUARTERS, hoursOfWeek, RECURRING_KEYS, RECURRING_PLACE, timeKey } from './index.ts'

const ZONES = ['Europe/Berlin', 'Asia/Kathmandu', 'Australia/Lord_Howe', 'America/St_Johns', 'Pacific/Apia']
/** Days on which clocks change in one of them; Apia had no 30 December 2011 (IANA time zone database). */
const CHANGES = ['2026-03-29', '2026-10-25', '2026-04-04', '2026-10-03', '2026-03-08', '2011-12-30'] as const
const moments = fc.oneof(
  fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2100, 0) }),
  fc
    .tuple(fc.constantFrom(...CHANGES), fc.integer({ min: 0, max: 86_399_999 }))
    .map(([day, after]) => Date.parse(day) + after),
)

describe('what a piece of time is called', () => {
  // ISO 8601: weeks begin on Monday; week 1 holds the year's first Thursday.
  it.each([
    ['2026-01-01', '2026-W01'],
    ['2027-01-03', '2026-W53'],
    ['2027-01-04', '2027-W01'],
    ['2024-12-30', '2025-W01'],
    ['2021-01-03', '2020-W53'],
  ])('%s lies in week %s', (day, week) => {
    expect(timeKey('UTC', 'week', Date.parse(`${day}T12:00:00Z`))).toBe(week)
  })

  it('tells the hour that comes twice apart', () => {
    const [first, second] = ['2026-10-25T00:30:00Z', '2026-10-25T01:30:00Z'].map((at) =>
      timeKey('Europe/Berlin', 'hour', Date.parse(at)),
    )
    expect([first, second]).toEqual(['2026-10-25T02:00+02:00', '2026-10-25T02:00+01:00'])
  })

  it('is what another library calls it, at every moment and in every zone', () => {
    fc.assert(
      fc.property(moments, fc.constantFrom(...ZONES), (at, zone) => {
        const called = (pattern: string) => format(at, pattern, { in: tz(zone) })
        expect([
          timeKey(zone, 'hour', at),
          timeKey(zone, 'day', at),
          timeKey(zone, 'week', at),
          timeKey(zone, 'month', at),
          timeKey(zone, 'quarter', at),
          timeKey(zone, 'year', at),
        ]).toEqual([
          called("yyyy-MM-dd'T'HH:00xxx"),
          called('yyyy-MM-dd'),
          called("RRRR-'W'II"),
          called('yyyy-MM'),
          called('yyyy-QQQ'),
          called('yyyy'),
        ])
        const quarter = Math.floor(at / QUARTER_MS)
        const day = Math.floor(quarter / DAY_QUARTERS)
        const hour = hoursOfWeek(zone, day)[quarter - day * DAY_QUARTERS] ?? -1
        for (const [dimension, pattern] of [
          ['hourOfDay', 'HH'],
          ['weekday', 'i'],
          ['hourOfWeek', 'i-HH'],
        ] as const)
          expect(RECURRING_KEYS[dimension][RECURRING_PLACE[dimension](hour)]).toBe(called(pattern))
      }),
    )
  })
})
