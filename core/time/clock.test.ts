import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clockFace, minutesOf, momentOf, withinHours } from './index.ts'

/** What the runtime's own copy of the IANA data shows, asked for in another way. */
function shown(zone: string, at: number): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(at)
  const part = (type: string) => parts.find((each) => each.type === type)?.value ?? ''
  return `${part('weekday')} ${part('year')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}`
}
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const ZONES = [
  'Europe/Berlin',
  'America/New_York',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Chatham',
  'Africa/Casablanca',
  'America/St_Johns',
  'Pacific/Apia',
  'UTC',
]
const zone = fc.constantFrom(...ZONES)
const moment = fc.integer({ min: Date.parse('2015-01-01'), max: Date.parse('2035-01-01') })

describe('the clock of a zone', () => {
  it('shows what the IANA data says, at any moment', () => {
    fc.assert(
      fc.property(zone, moment, (of, at) => {
        const { weekday, minute } = clockFace(of, at)
        const expected = shown(of, at)
        expect(
          `${DAYS[weekday - 1] ?? ''} ${expected.slice(4, 15)}${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`,
        ).toBe(expected)
      }),
      { numRuns: 500 },
    )
  })

  it('gives the moment at which it shows a time, or first shows a later one', () => {
    fc.assert(
      fc.property(zone, moment, (of, at) => {
        const local = shown(of, at).slice(4)
        const found = momentOf(of, local)
        expect(shown(of, found).slice(4)).toBe(local)
        // Of two moments that show it, the earlier.
        expect(found).toBeLessThanOrEqual(at)
      }),
      { numRuns: 500 },
    )
  })

  // Changes of clock as the IANA time zone database has them.
  it.each([
    ['Europe/Berlin', '2026-03-29T02:30', '2026-03-29T01:00:00Z', 'the hour that is skipped'],
    ['Europe/Berlin', '2026-10-25T02:30', '2026-10-25T00:30:00Z', 'the hour that comes twice'],
    ['America/New_York', '2026-11-01T01:15', '2026-11-01T05:15:00Z', 'the hour that comes twice'],
    ['Australia/Lord_Howe', '2026-10-04T02:15', '2026-10-03T15:30:00Z', 'the half hour that is skipped'],
    ['Asia/Kathmandu', '2026-01-01T00:00', '2025-12-31T18:15:00Z', 'a quarter of an hour'],
    ['Pacific/Apia', '2011-12-30T12:00', '2011-12-30T10:00:00Z', 'the day that never was'],
  ])('in %s, %s is %s: %s', (of, local, iso) => {
    expect(new Date(momentOf(of, local)).toISOString()).toBe(new Date(iso).toISOString())
  })
})

describe('weekly hours', () => {
  const at = (day: number, time: string) => ({ weekday: day, minute: minutesOf(time) })
  it.each([
    [5, '22:00', true],
    [5, '21:59', false],
    [6, '05:59', true],
    [6, '06:00', false],
    [5, '03:00', false],
    [7, '03:00', false],
  ])('from Friday 22:00 to 06:00, day %i at %s: %s', (day, time, inside) => {
    expect(withinHours(at(day, time), new Set([5]), minutesOf('22:00'), minutesOf('06:00'))).toBe(inside)
  })
  it('that begin on Sunday end on Monday', () => {
    expect(withinHours(at(1, '01:00'), new Set([7]), minutesOf('23:00'), minutesOf('02:00'))).toBe(true)
  })
  it('with equal ends are 24 hours', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1439 }), (minute) => {
        expect(withinHours({ weekday: 3, minute }, new Set([2, 3]), 600, 600)).toBe(true)
      }),
    )
  })
  it('and the hours between them part the day', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1439 }),
        fc.integer({ min: 0, max: 1439 }),
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 0, max: 1439 }),
        (from, upTo, weekday, minute) => {
          fc.pre(from !== upTo)
          const all = new Set([1, 2, 3, 4, 5, 6, 7])
          expect(withinHours({ weekday, minute }, all, from, upTo)).not.toBe(
            withinHours({ weekday, minute }, all, upTo, from),
          )
        },
      ),
    )
  })
})
