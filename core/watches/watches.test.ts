import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { momentOf } from '../time/index.ts'
import {
  judgeWatch,
  newWatch,
  nextSummary,
  spikeFrom,
  summaryPeriod,
  watchInWords,
  type SummaryEvery,
  type Watched,
} from './index.ts'

const DAY = 86_400_000
const calm: Watched = {
  now: 100 * DAY,
  total: 0,
  lastAt: null,
  isLive: true,
  latest: 0,
  before: Array.from({ length: 28 }, () => 10),
}
const told = (
  what: 'first' | 'count' | 'silent' | 'spike',
  n: number,
  more: Partial<Watched>,
  toldAt: number | null = null,
) => judgeWatch(what, n, { ...calm, ...more }, { toldAt })?.kind ?? null

describe('what is watched for', () => {
  it('is the first scan, once', () => {
    expect(told('first', 0, {})).toBeNull()
    expect(told('first', 0, { total: 1 })).toBe('first')
    expect(told('first', 0, { total: 9 }, 99 * DAY)).toBeNull()
  })

  it('is a number of scans, once', () => {
    expect([told('count', 100, { total: 99 }), told('count', 100, { total: 100 })]).toEqual([null, 'count'])
    expect(told('count', 100, { total: 500 }, 99 * DAY)).toBeNull()
  })

  it('is silence of days while live, once until something is scanned again', () => {
    const lastAt = 97 * DAY
    expect(told('silent', 3, { lastAt })).toBe('silent')
    expect(told('silent', 3, { lastAt: lastAt + 1 })).toBeNull()
    expect(told('silent', 3, { lastAt, isLive: false })).toBeNull()
    expect(told('silent', 3, { lastAt }, 99 * DAY)).toBeNull()
    expect(told('silent', 3, { lastAt }, 96 * DAY)).toBe('silent')
    expect(told('silent', 3, { lastAt: null })).toBeNull()
  })

  it('is many more scans than usual: above twice the median, and far above what days differ by; once a day', () => {
    // Median 10, no spread: from 20 on.
    expect([told('spike', 0, { latest: 20 }), told('spike', 0, { latest: 21 })]).toEqual([null, 'spike'])
    expect(told('spike', 0, { latest: 500 }, 99.5 * DAY)).toBeNull()
    expect(told('spike', 0, { latest: 500 }, 98 * DAY)).toBe('spike')
    expect(told('spike', 0, { latest: 500, before: [1, 2, 3] })).toBeNull()
  })

  // Values of 1 to 9: median 5, median absolute deviation 2, by hand.
  it('knows what is usual by median and median absolute deviation', () => {
    const before = [100, 101, 102, 103, 104, 105, 106, 107, 108]
    expect(spikeFrom(before)).toEqual({ usual: 104, from: 208 })
    const wide = before.map((each) => 100 + (each - 104) * 25)
    expect(spikeFrom(wide)).toEqual({ usual: 100, from: 100 + 4 * 1.4826 * 50 })
    expect(spikeFrom([0, 0, 0, 0, 0, 0, 0])).toEqual({ usual: 0, from: 20 })
    expect(spikeFrom([5, 1, 3, 9, 7, 11, 13, 15])).toMatchObject({ usual: 8 })
  })
})

describe('summaries', () => {
  it.each([
    ['hour', '2026-03-29T01:20', '2026-03-29T03:00', '2026-03-29', '2026-03-29'],
    ['day', '2026-07-01T06:59', '2026-07-01T07:00', '2026-06-30', '2026-06-30'],
    ['day', '2026-07-01T07:00', '2026-07-02T07:00', '2026-07-01', '2026-07-01'],
    // 2026-06-29 is a Monday (ISO 8601: weeks begin on Monday).
    ['week', '2026-07-01T12:00', '2026-07-06T07:00', '2026-06-29', '2026-07-05'],
    ['week', '2026-06-29T05:00', '2026-06-29T07:00', '2026-06-22', '2026-06-28'],
    ['month', '2026-12-31T23:00', '2027-01-01T07:00', '2026-12-01', '2026-12-31'],
    ['month', '2028-02-15T00:00', '2028-03-01T07:00', '2028-02-01', '2028-02-29'],
  ] as const)('of each %s, looked at at %s, comes at %s', (every, now, at, from, to) => {
    const zone = 'Europe/Berlin'
    const due = nextSummary(every, zone, momentOf(zone, now))
    // In the spring night there is no two o'clock: one hour after one is three.
    expect(due).toBe(momentOf(zone, at))
    expect(summaryPeriod(every, zone, due)).toMatchObject({ from, to })
  })

  it('follow each other without a gap, in every zone, over every change of clocks', () => {
    const zones = ['Europe/Berlin', 'Asia/Kathmandu', 'America/St_Johns', 'Pacific/Apia', 'UTC']
    fc.assert(
      fc.property(
        fc.constantFrom<SummaryEvery>('hour', 'day', 'week', 'month'),
        fc.constantFrom(...zones),
        fc.integer({ min: Date.parse('2020-01-01'), max: Date.parse('2035-01-01') }),
        (every, zone, now) => {
          const first = nextSummary(every, zone, now)
          const second = nextSummary(every, zone, first)
          expect(first).toBeGreaterThan(now)
          expect(second).toBeGreaterThan(first)
          const [one, two] = [summaryPeriod(every, zone, first), summaryPeriod(every, zone, second)]
          expect(one.from <= one.to).toBe(true)
          if (every === 'hour') expect((two.hour ?? 0) - (one.hour ?? 0)).toBe(second - first)
          else expect(Date.parse(two.from) - Date.parse(one.to)).toBe(DAY)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('a new watch', () => {
  const base = { campaignId: 1, what: 'summary', every: 'week', n: null }
  it('is of one thing, and says how often or how many', () => {
    expect(newWatch.safeParse(base).success).toBe(true)
    for (const wrong of [
      { routeId: 2 },
      { campaignId: undefined },
      { every: 'once' },
      { what: 'first' },
      { what: 'count', every: 'once' },
      { what: 'silent', every: 'once', n: 9999 },
      { n: 5 },
    ])
      expect([wrong, newWatch.safeParse({ ...base, ...wrong }).success]).toEqual([wrong, false])
  })

  it('reads as words', () => {
    expect([
      watchInWords('summary', 'week', null),
      watchInWords('count', 'once', 1000),
      watchInWords('silent', 'once', 1),
    ]).toEqual(['a summary every week', '1,000 scans', 'no scan for 1 day'])
  })
})
