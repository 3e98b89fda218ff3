import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  deviation,
  expectedDays,
  findingInWords,
  LEAST_DAYS,
  programWave,
  stoppedPieces,
  unexpectedCountries,
  unusualDays,
} from './index.ts'

const WEEK = [10, 20, 30, 40, 50, 120, 100]
const weeks = (n: number, growth = 1) =>
  Array.from({ length: 7 * n }, (_, i) => Math.round((WEEK[i % 7] ?? 0) * growth ** i))
const next = (counts: readonly number[]) => expectedDays(counts).at(-1)
const day = (place: number) => new Date(Date.UTC(2026, 5, 1 + place)).toISOString().slice(0, 10)

describe('what a day is expected to bring', () => {
  it('is what its weekday always brings, within chance', () => {
    const found = next(weeks(10))
    expect(found?.expected).toBeCloseTo(10, 6)
    expect(found?.spread).toBe(1)
    // By hand: 2√(10 + 3/8) = 6.442; a half of 6.442 ∓ 1.96, squared, less 3/8.
    expect([found?.low.toFixed(1), found?.high.toFixed(1)]).toEqual(['4.6', '17.3'])
    expect(next([...weeks(10), 10, 20, 30, 40, 50])?.expected).toBeCloseTo(120, 6)
  })

  it('is not moved by single days, however wild', () => {
    const wild = weeks(10)
    wild[40] = 5000
    wild[60] = 0
    expect(next(wild)?.expected).toBeCloseTo(10, 0)
    expect(next(wild)?.spread).toBe(1)
  })

  it('follows a season that rises, a week behind', () => {
    const rising = weeks(12, 1.01)
    const truth = 10 * 1.01 ** rising.length
    expect((next(rising)?.expected ?? 0) / truth).toBeGreaterThan(0.85)
    expect((next(rising)?.expected ?? 0) / truth).toBeLessThan(1)
  })

  it('is not known of what has just begun, or never did', () => {
    expect(expectedDays([]).at(-1)).toBeNull()
    expect(expectedDays(Array.from({ length: 200 }, () => 0)).every((each) => each === null)).toBe(true)
    const short = [...Array.from({ length: 100 }, () => 0), ...weeks(4)]
    expect(next(short)).toBeNull()
    expect(LEAST_DAYS).toBe(28)
  })

  it('is never below nothing, and stands between its ends, whatever the days were', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1e6 }), { minLength: 40, maxLength: 120 }), (counts) => {
        const found = expectedDays(counts)
        expect(found).toHaveLength(counts.length + 1)
        for (const each of found)
          if (each) {
            expect(each.low).toBeGreaterThanOrEqual(0)
            expect(each.low).toBeLessThanOrEqual(each.expected + 1e-6)
            expect(each.high).toBeGreaterThanOrEqual(each.expected - 1e-6)
            expect(each.spread).toBeGreaterThanOrEqual(1)
          }
        // What comes later changes nothing of what was expected before.
        expect(expectedDays(counts.slice(0, -5))).toEqual(found.slice(0, -5))
      }),
      { numRuns: 40 },
    )
  })

  it('is off by a number of spreads that is worked out by hand', () => {
    // 2√150.375 − 2√100.375 = 24.5255 − 20.0375 = 4.488
    expect(deviation(150, { expected: 100, spread: 1 })).toBeCloseTo(4.488, 3)
    expect(deviation(150, { expected: 100, spread: 2 })).toBeCloseTo(2.244, 3)
    expect(deviation(100, { expected: 100, spread: 1 })).toBe(0)
  })
})

const steady = Array.from({ length: 70 }, () => 100)
const byHour = Array.from({ length: 24 }, () => 10)
const of = (yesterdays: number, todays = 0, lastHour: { hour: number; scans: number } | null = null) =>
  unusualDays({
    ...{ today: '2026-08-10', yesterday: '2026-08-09' },
    days: [...steady, yesterdays, todays],
    ...{ byHour, lastHour },
  }).map(({ kind, day: on, counted }) => [kind, on, counted])

describe('a day', () => {
  it('is unusual from four spreads on: of 100 expected scans from about 145, or below 65', () => {
    expect(of(144)).toEqual([])
    expect(of(150)).toEqual([['above', '2026-08-09', 150]])
    expect(of(66)).toEqual([])
    expect(of(60)).toEqual([['below', '2026-08-09', 60]])
  })
  it('that goes on is only ever above', () => {
    expect(of(100, 3)).toEqual([])
    expect(of(100, 200)).toEqual([['above', '2026-08-10', 200]])
  })
  it('has an hour that is unusual by itself, of enough scans', () => {
    // A 24th of 100 is 4.2: five spreads above are 22.
    expect(of(100, 30, { hour: 9, scans: 25 })).toEqual([['hour', '2026-08-10', 25]])
    expect(of(100, 30, { hour: 9, scans: 18 })).toEqual([])
  })
  it('of few scans is never unusual', () => {
    const days = [...Array.from({ length: 70 }, () => 1), 15, 0]
    expect(unusualDays({ ...{ today: 'b', yesterday: 'a', days, byHour: [], lastHour: null } })).toEqual([])
  })
  it('of pure chance is called unusual less than once in a thousand', () => {
    // Park and Miller's generator; counts by Knuth's multiplication of chances.
    let seed = 42
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
    const poisson = (mean: number) => {
      let n = 0
      for (let chance = random(); chance > Math.exp(-mean); chance *= random()) n++
      return n
    }
    const counts = Array.from({ length: 3000 }, () => poisson(60))
    const far = expectedDays(counts)
      .slice(0, -1)
      .filter((each, i) => each && Math.abs(deviation(counts[i] ?? 0, each)) > 4)
    expect(far.length).toBeLessThan(3)
  })
})

describe('a piece', () => {
  const dates = Array.from({ length: 72 }, (_, i) => day(i))
  const piece = (silent: number, scans = 6, isLive = true) => ({
    codeId: 7,
    isLive,
    days: [...Array.from({ length: 72 - silent }, () => scans), ...Array.from({ length: silent }, () => 0)],
  })
  it('is missed once twelve scans would have been expected since its last', () => {
    // The day that goes on is not counted.
    expect(stoppedPieces([piece(2)], dates)).toEqual([])
    const [found] = stoppedPieces([piece(3)], dates)
    expect(found).toMatchObject({ kind: 'stopped', codeId: 7, day: dates[68], counted: 2 })
    expect(found?.expected).toBeCloseTo(12, 6)
    expect(found && findingInWords(found)).toMatch(
      /^had no scan for \d+ days? after 8 Aug 2026, where about 12 would have been expected/,
    )
  })
  it('is not missed where it rests, is hardly ever scanned, or never was', () => {
    expect(stoppedPieces([piece(9, 6, false), piece(5, 1), piece(72)], dates)).toEqual([])
  })
})

describe('a country', () => {
  const counts = (latest: number, earlier: number) => [
    { country: 'DE', latest: 80, earlier: 5000 },
    { country: 'BR', latest, earlier },
  ]
  it('is unexpected where it hardly ever scanned and now does', () => {
    expect(unexpectedCountries(counts(30, 2), '2026-08-10')).toMatchObject([
      { key: 'BR', counted: 30, expected: 2 },
    ])
    expect(unexpectedCountries(counts(30, 200), '2026-08-10')).toEqual([])
    expect(unexpectedCountries(counts(8, 0), '2026-08-10')).toEqual([])
    expect(unexpectedCountries([{ country: 'BR', latest: 50, earlier: 0 }], '2026-08-10')).toEqual([])
    expect(unexpectedCountries([...counts(0, 0), { country: '', latest: 90, earlier: 0 }], 'd')).toEqual([])
  })
})

describe('programs', () => {
  it('come in a wave where their requests are far beyond the usual', () => {
    const usual = [3, 5, 4, 2, 6, 3, 4]
    expect(programWave([...usual, 240], '2026-08-10')).toMatchObject([{ counted: 240, expected: 4 }])
    expect(programWave([...usual, 40], '2026-08-10')).toEqual([])
    expect(programWave([200, 210, 190, 250], '2026-08-10')).toEqual([])
    expect(programWave([], '2026-08-10')).toEqual([])
  })
})
