import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clockFace, dayIn, momentOf, nextTime, type Recurrence } from './index.ts'

const BERLIN = 'Europe/Berlin'
const at = (every: 'day' | 'week' | 'month', clock = '07:00', weekday = 1, monthDay = 1): Recurrence => ({
  every,
  at: clock,
  weekday,
  monthDay,
})

describe('what comes again and again', () => {
  it.each([
    [at('day'), '2026-07-01T06:59', '2026-07-01T07:00'],
    [at('day'), '2026-07-01T07:00', '2026-07-02T07:00'],
    // 2026-07-03 is a Friday (ISO 8601: Monday is the first day of the week).
    [at('week', '18:30', 5), '2026-07-03T18:29', '2026-07-03T18:30'],
    [at('week', '18:30', 5), '2026-07-03T18:30', '2026-07-10T18:30'],
    [at('month', '07:00', 1, 28), '2026-02-28T08:00', '2026-03-28T07:00'],
    [at('month', '07:00', 1, 15), '2026-12-20T00:00', '2027-01-15T07:00'],
    // The clock jumps from two to three (the last Sunday of March): the first moment after that.
    [at('day', '02:30'), '2026-03-28T12:00', '2026-03-29T03:00'],
  ])('%j after %s comes at %s', (recurrence, now, next) => {
    expect(nextTime(recurrence, BERLIN, momentOf(BERLIN, now))).toBe(momentOf(BERLIN, next))
  })

  it('comes once on the day whose clock shows its time twice', () => {
    const first = nextTime(at('day', '02:30'), BERLIN, momentOf(BERLIN, '2026-10-24T12:00'))
    const second = nextTime(at('day', '02:30'), BERLIN, first)
    expect([dayIn(BERLIN, first), dayIn(BERLIN, second)]).toEqual(['2026-10-25', '2026-10-26'])
  })

  it('is always later, on a day and at a time that were asked for', () => {
    const recurrence = fc.record({
      every: fc.constantFrom('day' as const, 'week' as const, 'month' as const),
      at: fc.constantFrom('00:00', '07:00', '12:45', '23:59'),
      weekday: fc.integer({ min: 1, max: 7 }),
      monthDay: fc.integer({ min: 1, max: 28 }),
    })
    const zone = fc.constantFrom(BERLIN, 'UTC', 'Asia/Kathmandu', 'America/St_Johns', 'Australia/Lord_Howe')
    const now = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2035, 0, 1) })
    fc.assert(
      fc.property(recurrence, zone, now, (each, where, moment) => {
        const next = nextTime(each, where, moment)
        expect(next).toBeGreaterThan(moment)
        expect(next - moment).toBeLessThanOrEqual(32 * 86_400_000)
        const day = dayIn(where, next)
        if (each.every === 'month') expect(Number(day.slice(8))).toBe(each.monthDay)
        if (each.every === 'week') expect(clockFace(where, next).weekday).toBe(each.weekday)
      }),
    )
  })
})
